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
import { placementOf, unitFor, type Attributed, type Call, type LayoutView } from './attribution.js';
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
  const mine = <Item extends Call | LayoutView>(facts: readonly Item[]) =>
    facts
      .filter((fact) => fact.format === format && fact.variants.includes(variant))
      .flatMap((fact) => {
        const found = placementOf(scope, fact, format);
        return found?.placement === name ? [{ fact, ...found }] : [];
      });
  const loads = mine(callsOf(scope, profile.id, 'load'));
  const views = mine(callsOf(scope, profile.id, 'view'));
  const layouts = mine(
    scope.facts.filter(
      (fact): fact is LayoutView => fact.kind === 'banner-view' && fact.network === profile.id,
    ),
  );
  const shows = mine(callsOf(scope, profile.id, 'show'));
  const view = views[0] ?? layouts[0];
  const asks: (Attributed & { fact: Call | LayoutView }) | undefined = loads[0] ?? view;
  const handed = unitFor(scope, { network: profile.id, placement: name, variant, stage }, asks?.fact ?? null);
  const screen = asks ? screenOf(asks.fact) : { id: '', name: '' };
  const isLaunch = maker.launches.has(screen.id);
  const show = shows[0];
  const shownCall =
    show &&
    appCall(profile, show.fact, {
      action: 'show',
      format,
      isLaunch: maker.launches.has(screenOf(show.fact).id),
    });
  const code = asks && codeIn(profile, asks.fact.place.path);
  const listens = callsOf(scope, profile.id, 'listen').some(isIn(asks?.fact));
  return {
    network: profile.id,
    placement: name,
    format,
    screen: screen.id,
    unit: handed.unit,
    whyNoUnit: handed.why,
    settings: settingsIn(maker, name, placement.settings),
    load: loadOf(profile, { load: loads[0]?.fact, view: view?.fact }, { format, isLaunch }),
    show: shownCall ?? null,
    isShownByCall: code?.formats[format]?.show !== undefined,
    ...conditionsOf(profile, scope, shows),
    handles: handlesOf(scope, asks?.fact, show?.fact),
    release: releaseOf(profile, scope, { fact: asks?.fact, format, isLaunch, isView: loads.length === 0 }),
    keepsListener: listens && !callsOf(scope, profile.id, 'stop-listening').some(isIn(asks?.fact)),
    heldAt: view?.fact.anchor,
    covers: view?.fact.kind === 'banner-view' ? view.fact.covers : undefined,
    assumed: asks?.assumed ?? show?.assumed,
  };
}

const isIn = (fact: Call | LayoutView | undefined) => (other: Call) =>
  fact !== undefined && other.place.path === fact.place.path;

/** What loads: a call, or a view that does it by itself when its screen is opened. */
function loadOf(
  profile: Profile,
  { load, view }: { load: Call | undefined; view: Call | LayoutView | undefined },
  { format, isLaunch }: { format: AppSlot['format']; isLaunch: boolean },
): AppCall | null {
  const call = load ?? (view?.kind === 'call' ? view : undefined);
  if (call) return appCall(profile, call, { action: load ? 'load' : 'view', format, isLaunch });
  if (!view) return null;
  const { place, value } = view;
  const screen = screenOf(view).id;
  const plain = { follows: [], isAwaited: false, order: 0, isLooped: false, isOfApp: false };
  return { call: value, triggers: ['open'], screen, place, ...plain };
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
    assumed: 'it runs when the screen goes away; it is in another file.',
  };
}
