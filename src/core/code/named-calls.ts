import type { Profile } from '../network/model.js';
import type { LanguageCalls } from '../network/calls.js';
import type { CallAction } from '../facts/kinds/call.js';
import type { Format } from '../words/words.js';
import type { Tree } from '../tree/tree.js';
import { languageNames, languageOf, type LanguageName } from '../languages/index.js';
import type { PlainValue, SourceCall } from './source-reading.js';
import { readingOf } from './source-files.js';
import { groupBy } from '../text/group-by.js';

/** A call that a network's profile names. */
export interface NamedCall {
  network: string;
  call: string;
  action: CallAction;
  format?: Format;
  /** The argument that takes an ID: counted from 0, or its label. */
  id: number | string | undefined;
}

/** What a profile says of a call, as far as it may take an ID. */
interface AdCall {
  call: string;
  id?: number | string | undefined;
  'taken-by'?: { call: string; id: number | string } | undefined;
}

/** Names shorter than this would fit too many files. */
const minNeedle = 6;

/**
 * The texts by which source files are found that call an SDK, answer it, or name a placement through the
 * placebook: what such a file has to import, and the class that starts the SDK. Few, because every file of a
 * tree is searched for all of them at once.
 */
export function callNeedles(profiles: readonly Profile[]): string[] {
  const found = profiles.flatMap((profile) =>
    languageNames.flatMap((language) => {
      const calls = callsOf(profile, language);
      const heads = calls.map(({ call }) => call.split('.')[0] ?? call);
      const imports = (profile.code[language]?.imports ?? []).map(importRoot);
      return imports.length > 0 ? [...imports, ...heads.slice(0, 1)] : heads;
    }),
  );
  const views = profiles.flatMap(({ android, ios }) =>
    [...(android?.views ?? []), ...(ios?.views ?? [])].map((view) => view.class),
  );
  const classes = profiles.flatMap(({ android }) => android?.application?.class.split('.').at(-1) ?? []);
  const all = [
    ...new Set([
      'Placebook',
      ...[...found, ...views, ...classes].filter(({ length }) => length >= minNeedle),
    ]),
  ];
  return all.filter((needle) => !all.some((other) => other !== needle && needle.includes(other)));
}

/** `example.cobaltheron` of a package, `CobaltHeronAds` of a module or header. */
function importRoot(text: string): string {
  const module = text.split('/')[0] ?? text;
  return module.split('.').slice(0, 2).join('.');
}

/** Computes something for a profile and a language once: every file asks for it. */
function oncePer<Result>(make: (profile: Profile, language: LanguageName) => Result) {
  const known = new WeakMap<Profile, Map<string, Result>>();
  return (profile: Profile, language: LanguageName): Result => {
    const mine = known.get(profile) ?? new Map<string, Result>();
    known.set(profile, mine);
    const found = mine.get(language) ?? make(profile, language);
    mine.set(language, found);
    return found;
  };
}

/** The calls that a profile names in a language. */
export const callsOf = oncePer((profile, language): NamedCall[] => {
  const calls: LanguageCalls | undefined = profile.code[language];
  if (!calls) return [];
  const named = (action: CallAction, call: AdCall | undefined, format?: Format): NamedCall[] => {
    if (!call) return [];
    const base = { network: profile.id, ...(format && { format }) };
    const by = call['taken-by'];
    return [
      { ...base, call: call.call, action, id: call.id },
      ...(by ? [{ ...base, call: by.call, action: 'identify' as const, id: by.id }] : []),
    ];
  };
  return [
    ...named('start', calls.start),
    ...named('consent', calls.consent),
    ...named('test-devices', calls['test-devices']),
    ...named('listen', calls.listeners && { call: calls.listeners.add }),
    ...named('stop-listening', calls.listeners && { call: calls.listeners.remove }),
    ...Object.entries(calls.formats).flatMap(([name, { load, show, view, release }]) => {
      const format = name as Format;
      return [
        ...named('load', load, format),
        ...named('view', view, format),
        ...named('show', show, format),
        ...named('release', release, format),
      ];
    }),
  ];
});

/** The networks that have a call which takes the text at an offset as an ID. */
export function networksTaking(
  tree: Tree,
  path: string,
  profiles: readonly Profile[],
): ReadonlyMap<number, string> {
  const language = languageOf(path);
  const taking = language
    ? profiles.flatMap((profile) => callsOf(profile, language.id)).filter(({ id }) => id !== undefined)
    : [];
  const found = new Map<number, string>();
  if (taking.length === 0) return found;
  const named = groupBy(taking, ({ call }) => lastPart(call));
  for (const call of readingOf(tree, path).calls)
    for (const one of named.get(lastPart(call.name)) ?? []) {
      if (one.id === undefined || !isCallOf(call, one)) continue;
      for (const value of argumentAt(call, one.id) ?? [])
        if (value.is === 'text') found.set(value.start, one.network);
    }
  return found;
}

/** The callbacks that a profile names in a language, by the events that they answer. */
export const callbacksOf = oncePer((profile, language): { event: string; name: string }[] => {
  const found = Object.values(profile.code[language]?.formats ?? {}).flatMap(({ callbacks }) =>
    Object.entries(callbacks).map(([event, name]) => ({ event, name })),
  );
  const { start, consent } = profile.code[language] ?? {};
  for (const name of [start?.completed, consent?.completed])
    if (name !== undefined) found.push({ event: 'completed', name });
  return [...new Map(found.map((item) => [`${item.event} ${item.name}`, item])).values()];
});

/** Whether a call is the one that a profile names. */
export function isCallOf({ name, receiver }: SourceCall, { call }: Pick<NamedCall, 'call'>): boolean {
  const full = receiver === undefined ? name : `${receiver}.${name}`;
  return name === call || full === call || full.endsWith(`.${call}`);
}

/** The last part of a dotted name. */
export const lastPart = (name: string): string => name.slice(name.lastIndexOf('.') + 1);

/** The values that an argument may have. */
export function argumentAt(
  { arguments: given }: SourceCall,
  id: number | string,
): readonly PlainValue[] | undefined {
  const found = typeof id === 'string' ? given.find(({ label }) => label === id) : given[id];
  return found?.values;
}
