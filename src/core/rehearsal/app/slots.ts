import { answers, callsOf, readyNames } from '../../checks/code.js';
import { onlyAsks } from '../../checks/show-conditions.js';
import type { EditionScope } from '../../checks/scope.js';
import type { FactOf } from '../../facts/model.js';
import { settingsFrom } from '../../languages/common/fields.js';
import type { Profile } from '../../network/model.js';
import { offers } from '../../network/recognise.js';
import type { Placement } from '../../roster/model.js';
import { valueAt } from '../../text/own-values.js';
import type { Settings } from '../../words/settings.js';
import type { Stage } from '../../words/words.js';
import { open, placementOf, unitFor, type Attributed, type Call, type LayoutView } from './attribution.js';
import { appCall, codeIn, screenOf } from './calls.js';
import type { AppCall, AppSlot } from './model.js';

/** What slots are made from. */
export interface SlotMaker {
  scope: EditionScope;
  variant: string;
  stage: Stage;
  /** The screens that are the application itself. */
  launches: ReadonlySet<string>;
}

/** The networks of a placement, in the order in which they are tried. */
export function slotsOf(maker: SlotMaker, name: string, placement: Placement): AppSlot[] {
  const { scope } = maker;
  const { fallback = [] } = placement.settings;
  const rank = ({ id }: Profile) => (fallback.includes(id) ? fallback.indexOf(id) : fallback.length);
  return scope.networks
    .filter(({ id }) => valueAt(placement.units, id))
    .filter((profile) => offers(profile, placement.format, scope.platform))
    .sort((a, b) => rank(a) - rank(b))
    .map((profile) => slotOf(maker, profile, { name, placement }));
}

interface Named {
  name: string;
  placement: Placement;
}

function slotOf(maker: SlotMaker, profile: Profile, { name, placement }: Named): AppSlot {
  const { scope, variant, stage } = maker;
  const { format } = placement;
  const { loads, shows, view, isOpen } = codeOf(maker, profile, { name, placement });
  const asks: Found<Call | LayoutView> | undefined = loads[0] ?? view;
  const fact = asks?.fact;
  const handed = unitFor(scope, { network: profile.id, placement: name, variant, stage }, fact ?? null);
  const screen = fact ? screenOf(fact).id : '';
  const calls = (action: 'load' | 'view' | 'show', facts: readonly Found<Call>[]) =>
    together(facts.map((one) => callOf(maker, profile, one.fact, { action, format })));
  const listens = callsOf(scope, profile.id, 'listen').some(isIn(fact));
  const about = { fact, format, isLaunch: maker.launches.has(screen), isView: loads.length === 0 };
  return {
    network: profile.id,
    placement: name,
    format,
    screen,
    unit: handed.unit,
    whyNoUnit: handed.why,
    settings: settingsIn(maker, name, placement.settings),
    load: calls('load', loads) ?? viewCall(view, (found) => calls('view', [found])),
    isOpen,
    show: onScreen(calls('show', shows), loads.length > 0 ? screen : null, shows[0]),
    isShownByCall:
      fact !== undefined && codeIn(profile, fact.place.path)?.formats[format]?.show !== undefined,
    ...conditionsOf(profile, scope, shows),
    handles: handlesOf(scope, fact, shows[0]?.fact),
    release: releaseOf(profile, scope, about),
    keepsListener: listens && !callsOf(scope, profile.id, 'stop-listening').some(isIn(fact)),
    heldAt: view?.fact.anchor,
    covers: view?.fact.kind === 'banner-view' ? view.fact.covers : undefined,
    assumed: asks?.assumed ?? handed.assumed ?? shows[0]?.assumed,
  };
}

type Found<Fact> = Attributed & { fact: Fact };

/** The calls and views of a network that are about a placement, and those that may be. */
function codeOf({ scope, variant }: SlotMaker, profile: Profile, { name, placement }: Named) {
  const mine = <Item extends Call | LayoutView>(facts: readonly Item[]) => {
    const found: Found<Item>[] = [];
    const maybe: Found<Item>[] = [];
    for (const fact of facts) {
      if (fact.format !== placement.format || !fact.variants.includes(variant)) continue;
      const about = placementOf(scope, fact, placement.format);
      if (about === open) maybe.push({ fact, placement: name });
      else if (about?.placement === name) found.push({ fact, ...about });
    }
    return { found, maybe };
  };
  const layouts = mine(
    scope.facts.filter(
      (fact): fact is LayoutView => fact.kind === 'banner-view' && fact.network === profile.id,
    ),
  );
  const views = mine(callsOf(scope, profile.id, 'view'));
  const loads = mine(callsOf(scope, profile.id, 'load'));
  const shows = mine(callsOf(scope, profile.id, 'show'));
  const view: Found<Call | LayoutView> | undefined = views.found[0] ?? layouts.found[0];
  const showing = new Set(shows.found.map(({ fact }) => screenOf(fact).id));
  const isShown = ({ fact }: Found<Call>) => showing.has(screenOf(fact).id);
  return {
    // Of several screens that load it, the one that shows it comes first.
    loads: [...loads.found.filter(isShown), ...loads.found.filter((one) => !isShown(one))],
    // A show call often does not name its placement. It is assumed to show the ad that was loaded.
    shows: shows.found.length > 0 || loads.found.length === 0 ? shows.found : shows.maybe,
    view,
    isOpen: [loads, views, layouts].some(({ maybe }) => maybe.length > 0),
  };
}

function callOf(
  { scope, launches }: SlotMaker,
  profile: Profile,
  fact: Call,
  { action, format }: { action: 'load' | 'view' | 'show'; format: AppSlot['format'] },
): AppCall {
  const isLaunch = launches.has(screenOf(fact).id);
  return appCall(profile, fact, { action, format, isLaunch, others: scope.networks });
}

const isIn = (fact: Call | LayoutView | undefined) => (other: Call) =>
  fact !== undefined && other.place.path === fact.place.path;

/** A call that may show other placements, too, shows this one on its own screen. */
function onScreen(
  call: AppCall | null,
  screen: string | null,
  about: Found<Call> | undefined,
): AppCall | null {
  if (!call || screen === null || !about || call.screen === screen || call.isOfApp) return call;
  return { ...call, screen };
}

/** Calls of one screen, as one that any of their occasions makes run. */
function together(calls: readonly AppCall[]): AppCall | null {
  const [first] = calls;
  if (!first) return null;
  const mine = calls.filter(({ screen }) => screen === first.screen);
  const triggers = [...new Set(mine.flatMap((call) => call.triggers))];
  // If nothing else runs it, it handles the failure of another network, since its own cannot come first.
  const isFallback = triggers.every((trigger) => trigger === 'retry');
  return {
    ...first,
    triggers: isFallback ? ['failed'] : triggers,
    isLooped: mine.some(({ isLooped }) => isLooped),
  };
}

/** A view loads by itself when its screen is opened. */
function viewCall(
  view: Found<Call | LayoutView> | undefined,
  call: (found: Found<Call>) => AppCall | null,
): AppCall | null {
  if (!view) return null;
  const { fact } = view;
  if (fact.kind === 'call') return call({ ...view, fact });
  const { place, value } = fact;
  const plain = { follows: [], isAwaited: false, order: 0, isLooped: false, isOfApp: false };
  return { call: value, triggers: ['open'], screen: screenOf(fact).id, place, ...plain };
}

/** The settings that the build carries: those of its placebook, else those on record. */
function settingsIn({ scope, variant }: SlotMaker, name: string, recorded: Settings): Settings {
  const found = scope.facts.find(
    (fact): fact is FactOf<'placement-settings'> =>
      fact.kind === 'placement-settings' && fact.placement === name && fact.variants.includes(variant),
  );
  const { fallback, timeout } = recorded;
  const own = found ? settingsFrom(found.fields) : recorded;
  return { ...(timeout === undefined ? {} : { timeout }), ...own, ...(fallback ? { fallback } : {}) };
}

/** What the code asks before it shows an ad: whether one is loaded, and whether it is time for one. */
function conditionsOf(
  profile: Profile,
  { platform }: EditionScope,
  shows: readonly { fact: Call }[],
): Pick<AppSlot, 'checksReady' | 'keepsCap' | 'limitedBy'> {
  const texts = shows.flatMap(({ fact: { code } }) =>
    [...(code?.conditions ?? []), ...(code?.calledAt ?? []).flatMap(({ conditions }) => conditions)].map(
      ({ text }) => text,
    ),
  );
  const names = readyNames(profile, platform, shows[0]?.fact.format);
  const asksReady = (text: string) => names.some((name) => text.includes(name));
  return {
    checksReady: texts.some(asksReady),
    keepsCap: texts.some((text) => limits.test(text) || (/\w\s*\(/.test(text) && !asksReady(text))),
    limitedBy: texts.find((text) => !onlyAsks(text, names)) ?? null,
  };
}

/** A condition that bounds how often something is shown. */
const limits = /cap|count|since|last|often|elapsed|interval|minutes|seconds|shown|limit|allowed|due|[<>]/i;

function handlesOf(
  scope: EditionScope,
  load: Call | LayoutView | undefined,
  show: Call | undefined,
): AppSlot['handles'] {
  const facts = [load, show].filter((fact) => fact !== undefined);
  const isAnswered = (event: string) => facts.some((fact) => answers(scope, fact, event));
  return { failed: isAnswered('failed'), closed: isAnswered('closed'), rewarded: isAnswered('rewarded') };
}

/** How an ad is released with its screen: by a call, by nobody, or by the framework (null). */
function releaseOf(
  profile: Profile,
  scope: EditionScope,
  about: {
    fact: Call | LayoutView | undefined;
    format: AppSlot['format'];
    isLaunch: boolean;
    isView: boolean;
  },
): AppSlot['release'] {
  const { fact, format, isLaunch, isView } = about;
  if (!fact || isLaunch || isView) return null;
  if (codeIn(profile, fact.place.path)?.formats[format]?.release === undefined) return null;
  const released = callsOf(scope, profile.id, 'release').filter((call) => call.format === format);
  const own = released.find(isIn(fact));
  if (own) return appCall(profile, own, { action: 'release', format, isLaunch });
  // A file of its own may do it: who calls that is not followed.
  const [other] = released;
  if (!other) return 'missing';
  return {
    ...appCall(profile, other, { action: 'release', format, isLaunch }),
    triggers: ['leave'],
    assumed: 'it runs when the screen closes; it is in another file.',
  };
}
