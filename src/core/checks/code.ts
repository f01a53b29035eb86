import { groupBy } from '../text/group-by.js';
import { valueAt } from '../text/own-values.js';
import type { CallAction } from '../facts/kinds/call.js';
import type { Fact, FactOf } from '../facts/model.js';
import { nativeLanguages } from '../languages/index.js';
import type { Profile } from '../network/model.js';
import { placementNames } from '../languages/common/placebook.js';
import type { Format } from '../words/words.js';
import type { Title } from '../roster/model.js';
import type { EditionScope } from './scope.js';

type CallFact = FactOf<'call'>;

const callsByScope = new WeakMap<EditionScope, Map<string, readonly CallFact[]>>();

/**
 * The calls of a network's SDK that an edition's code makes: those that do one of some things. Rules ask for each call.
 */
export function callsOf(scope: EditionScope, network: string, ...actions: CallAction[]): readonly CallFact[] {
  const known = callsByScope.get(scope) ?? new Map<string, readonly CallFact[]>();
  callsByScope.set(scope, known);
  const key = JSON.stringify([network, ...actions]);
  let calls = known.get(key);
  if (!calls) {
    calls = scope.facts.filter(
      (fact): fact is CallFact =>
        fact.kind === 'call' && fact.network === network && actions.includes(fact.action),
    );
    known.set(key, calls);
  }
  return calls;
}

/** Whether a fact is a view of a network, in a layout or made by code, with the place that holds it. */
export function isView(fact: Fact): fact is FactOf<'banner-view'> | CallFact {
  return fact.kind === 'banner-view' || (fact.kind === 'call' && fact.action === 'view');
}

const callbacksByScope = new WeakMap<EditionScope, ReadonlyMap<string | null, readonly Fact[]>>();

/** The methods that answer events of a network, in an edition's code. */
function networkCallbacks(scope: EditionScope, network: string | null): readonly Fact[] {
  let known = callbacksByScope.get(scope);
  if (!known) {
    const all = scope.facts.filter(({ kind }) => kind === 'callback');
    known = groupBy<Fact, string | null>(all, (fact) => fact.network);
    callbacksByScope.set(scope, known);
  }
  return known.get(network) ?? [];
}

/** The methods that answer an event of a network, in an edition's code. */
export function callbacksOf(scope: EditionScope, network: string, event: string): Fact[] {
  return networkCallbacks(scope, network).filter(({ name }) => name === event);
}

/** How a profile's code looks in the languages that an edition may be written in. */
export function languagesFor(profile: Profile, platform: 'android' | 'ios') {
  const others: string[] = nativeLanguages(platform === 'android' ? 'ios' : 'android');
  return Object.entries(profile.code).flatMap(([language, calls]) =>
    others.includes(language) ? [] : calls,
  );
}

/** Whether an edition's code handles an event: in the file of a call or, if that file handles no event, anywhere. */
export function answers(scope: EditionScope, call: Fact, event: string): boolean {
  const all = callbacksOf(scope, call.network ?? '', event);
  const { path } = call.place;
  const answersHere = networkCallbacks(scope, call.network).some(({ place }) => place.path === path);
  return (answersHere ? all.filter(({ place }) => place.path === path) : all).some(
    ({ code }) => code?.empty !== true,
  );
}

/** The names in a profile's code that say whether an ad is loaded: `isReady`, without the class before it. */
export function readyNames(
  profile: Profile,
  platform: 'android' | 'ios',
  format: Format | undefined,
): string[] {
  return languagesFor(profile, platform).flatMap(({ formats }) => {
    const ready = format && formats[format]?.ready;
    return ready === undefined ? [] : [ready.split('.').at(-1) ?? ready];
  });
}

/** Formats that take the whole screen, so that the next one waits behind them. */
export const fullScreen = new Set<Format>(['interstitial', 'rewarded', 'splash']);

/** Where a call runs: at its own place, and wherever the same file calls the method around it. */
export interface CallSite {
  methods: readonly string[];
  conditions: readonly { text: string; holds: boolean }[];
  follows: readonly ('start' | 'consent')[];
  line: number;
  column: number;
}

export function sitesOf({ code, place, follows = [] }: CallFact): CallSite[] {
  const { line, column } = place;
  const { methods = [], conditions = [], calledAt = [] } = code ?? {};
  return [
    { methods, conditions, follows, line, column },
    ...calledAt.map((one) => ({ ...one, follows: [...(one.follows ?? []), ...follows] })),
  ];
}

/** Whether one site surely comes after another: below it in the same method, or at the top of the same file. */
export function isBelow(one: CallSite, other: CallSite): boolean {
  const isSame =
    one.methods.length === other.methods.length &&
    one.methods.every((name, index) => name === other.methods[index]);
  return isSame && (one.line > other.line || (one.line === other.line && one.column > other.column));
}

/** The first of some calls in each method: what comes before it comes before the others, too. */
export function firstInMethods(calls: readonly CallFact[]): CallFact[] {
  const first = new Map<string, CallFact>();
  for (const call of calls) {
    const key = methodOf(call, call.code?.methods ?? []);
    const known = first.get(key);
    if (!known || isEarlier(call.place, known.place)) first.set(key, call);
  }
  return [...first.values()];
}

function isEarlier(one: Fact['place'], other: Fact['place']): boolean {
  return one.line < other.line || (one.line === other.line && one.column < other.column);
}

/** Names a method of a file, with those around it. */
export function methodOf({ place, code }: CallFact, methods: readonly string[]): string {
  return JSON.stringify([place.path, code?.type ?? null, ...methods]);
}

interface Placed {
  place: Fact['place'];
}

/** Names the place of something. */
export function placeOf({ place: { path, line, column } }: Placed): string {
  return `${path} ${line} ${column}`;
}

/** Reports of one thing at one place, once: several formats may share a call. */
export function oncePerPlace<Item extends Placed>(items: readonly Item[]): Item[] {
  return [...groupBy(items, placeOf).values()].flatMap(([first]) => first ?? []);
}

/** The names of the callbacks of a format, in the languages that an edition may be written in. */
export function callbackNames(
  profile: Profile,
  platform: 'android' | 'ios',
  format: Format | undefined,
): { closed?: string | undefined; failed?: string | undefined } {
  const found = languagesFor(profile, platform).flatMap(
    ({ formats }) => (format && formats[format]?.callbacks) ?? [],
  );
  return {
    closed: found.find(({ closed }) => closed !== undefined)?.closed,
    failed: found.find(({ failed }) => failed !== undefined)?.failed,
  };
}

/** The placements whose units are passed to a call, as IDs or through the placebook. */
export function placementsOf(call: Fact, title: Title): string[] {
  const { ids = [], written = '' } = call.code?.argument ?? {};
  return Object.entries(title.placements).flatMap(([name, { units }]) => {
    const own = Object.values(valueAt(units, call.network ?? '') ?? {}).flatMap((stages) =>
      Object.values(stages),
    );
    const named = placementNames(name).some((one) =>
      new RegExp(`\\b${one.replace('.', '\\.')}\\b`).test(written),
    );
    return named || ids.some((id) => own.includes(id)) ? [name] : [];
  });
}
