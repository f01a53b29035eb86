import type { Profile } from '../network/model.js';
import type { LanguageCalls } from '../network/calls.js';
import { placementNames } from '../languages/common/placebook.js';
import type { SurveyContext } from '../roster/survey-context.js';
import type { CodePlace } from '../facts/evidence.js';
import type { CallAction } from '../facts/kinds/call.js';
import type { Fact } from '../facts/model.js';
import type { Format } from '../words/words.js';
import { placeAt } from '../facts/place.js';
import type { TextDocument } from '../text/document.js';
import type { Tree } from '../tree/tree.js';
import { codePlace } from './facts.js';
import {
  languageNames,
  languageOf,
  languages,
  type Language,
  type LanguageName,
} from '../languages/index.js';
import { codeAlone } from '../syntax/literals.js';
import type { PlainValue, SourceCall, SourceReading } from './source-reading.js';
import { isPlacebook, readingOf, type CodeFile } from './source-files.js';
import { groupBy } from '../text/group-by.js';

/** A call that a network's profile names. */
interface NamedCall {
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
      'Placebook.',
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

const callsOf = oncePer((profile, language): NamedCall[] => {
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

/** The networks one of whose calls takes the text that begins at an offset as an ID. */
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

const callbacksOf = oncePer((profile, language): { event: string; name: string }[] => {
  const found = Object.values(profile.code[language]?.formats ?? {}).flatMap(({ callbacks }) =>
    Object.entries(callbacks).map(([event, name]) => ({ event, name })),
  );
  const { start, consent } = profile.code[language] ?? {};
  for (const name of [start?.completed, consent?.completed])
    if (name !== undefined) found.push({ event: 'completed', name });
  return [...new Map(found.map((item) => [`${item.event} ${item.name}`, item])).values()];
});

/** A file's code with comments and the contents of strings blanked out; kept with its other readings. */
const codeReaders = new Map(
  languages.map(({ id, literals }) => [
    id,
    (text: string) => ({ code: codeAlone(text, literals), problems: [] }),
  ]),
);

/** Facts for calls of SDKs in a source file, its answers to their callbacks, and placements that it names. */
export function callFacts(tree: Tree, file: CodeFile, { profiles, title }: SurveyContext): Fact[] {
  const document = tree.text(file.path);
  const language = languageOf(file.path);
  if (!document || !language || isPlacebook(tree, file.path)) return [];
  const reading = readingOf(tree, file.path);
  const source: Source = { tree, file, document, language, reading, profiles };
  const mine = profiles.filter((profile) => profile[file.platform]);
  const wanted = mine.flatMap((profile) => callsOf(profile, language.id));
  return [
    ...namedCalls(source, wanted),
    ...mine.flatMap((profile) => callbacks(source, profile)),
    ...placementUses(source, title),
  ];
}

interface Source {
  tree: Tree;
  file: CodeFile;
  document: TextDocument;
  language: Language;
  reading: SourceReading;
  profiles: readonly Profile[];
}

/** What a fact about a place in code has in common with all such; none where no variant compiles it. */
function factAt(
  { file, document }: Source,
  at: { start: number; end: number },
  value: string,
  conditions: CodePlace['conditions'] = [],
) {
  const variants = file.variants.filter((variant) => file.compiled(variant, at.start, conditions) !== 'no');
  if (variants.length === 0) return [];
  const { platform, module } = file;
  const place = placeAt(file.path, document, at);
  const chain = [{ what: 'code', value, place }];
  return [{ platform, module, variants, value, effective: true as const, place, chain }];
}

function namedCalls(source: Source, wanted: readonly NamedCall[]): Fact[] {
  const named = groupBy(wanted, ({ call }) => lastPart(call));
  return source.reading.calls.flatMap((call) =>
    (named.get(lastPart(call.name)) ?? [])
      .filter((one) => isCallOf(call, one))
      .flatMap((one) => callFact(source, call, one)),
  );
}

/** Whether a call is the one that a profile names. */
function isCallOf({ name, receiver }: SourceCall, { call }: Pick<NamedCall, 'call'>): boolean {
  const full = receiver === undefined ? name : `${receiver}.${name}`;
  return name === call || full === call || full.endsWith(`.${call}`);
}

/** What is given as an ID may differ by variant, so each variant is a fact then; equal ones are put together later. */
function callFact(source: Source, call: SourceCall, named: NamedCall): Fact[] {
  const { network, call: value, action, format, id } = named;
  const { tree, file, document, language, reading } = source;
  const span = { start: call.start, end: Math.min(call.end, call.start + 200) };
  const isGate = action === 'start' || action === 'consent';
  const after = isGate ? { awaited: isAwaited(document.text, call) } : followed(source, call, network);
  const waits = language.hasPromises ? waitingFor(document.text, call, reading) : undefined;
  const held = action === 'view' ? { anchor: call.heldAt ?? ('own-component' as const) } : {};
  const fact = (argument?: CodePlace['argument']): Fact[] => {
    const code = codePlace(call.context, { ...(argument && { argument }), ...(waits && { waits }) });
    const own = {
      kind: 'call' as const,
      network,
      action,
      ...(format && { format }),
      ...held,
      ...after,
      code,
    };
    return factAt(source, span, value, code.conditions).map((base) => ({ ...own, ...base }));
  };
  const given = id === undefined ? undefined : argumentAt(call, id);
  if (!given) return fact();
  return file.variants.flatMap((variant) =>
    fact(idArgument(tree, file, variant, given))
      .filter(({ variants }) => variants.includes(variant))
      .map((made) => ({ ...made, variants: [variant] })),
  );
}

function callbacks(source: Source, profile: Profile): Fact[] {
  return callbacksOf(profile, source.language.id).flatMap(({ event, name }) =>
    source.reading.methods
      .filter((candidate) => candidate.name === name)
      .flatMap((method) => {
        const span = { start: method.start, end: Math.min(method.end, method.start + 200) };
        const code = codePlace(method.context, { empty: method.empty });
        const own = { kind: 'callback' as const, network: profile.id, name: event, code };
        return factAt(source, span, name, code.conditions).map((base) => ({ ...own, ...base }));
      }),
  );
}

function placementUses(source: Source, title: SurveyContext['title']): Fact[] {
  const { tree, file, document, language } = source;
  if (!document.text.includes('Placebook.')) return [];
  const reader = codeReaders.get(language.id);
  const { code } = (reader && tree.read(file.path, reader)) ?? { code: '' };
  return Object.keys(title?.placements ?? {}).flatMap((placement) =>
    placementNames(placement).flatMap((name) =>
      places(code, name).flatMap((start) =>
        factAt(source, { start, end: start + name.length }, name).map((base) => ({
          kind: 'placement-use' as const,
          network: null,
          placement,
          name: placement,
          ...base,
        })),
      ),
    ),
  );
}

/** The last part of a dotted name. */
const lastPart = (name: string): string => name.slice(name.lastIndexOf('.') + 1);

/** What bounds a wait, by the name of what it is handed to. */
const limits = /race|timeout|limit|within|deadline/i;

/** Whether a promise is waited for, and whether something around it bounds the wait. */
function waitingFor(
  text: string,
  { start, end }: SourceCall,
  { calls, methods }: SourceReading,
): CodePlace['waits'] {
  const holds = (one: { start: number; end: number }) => one.start <= start && end <= one.end;
  const inside = calls.filter((one) => holds(one) && (one.start < start || end < one.end));
  if (inside.some(({ name }) => limits.test(name))) return 'limited';
  const around = methods.filter(holds).some(({ name }) => limits.test(name));
  const together = inside.filter(({ name }) => /(^|\.)(all|allSettled)$/.test(name));
  const awaited = [{ start, end }, ...together].some((one) => isAwaited(text, one));
  return awaited ? (around ? 'limited' : 'open') : undefined;
}

/** Whether the code goes on only when a call is done. */
function isAwaited(text: string, { start, end }: { start: number; end: number }): boolean {
  return (
    /\bawait\s+(?:[\w$]+\.)*$/.test(text.slice(Math.max(0, start - 80), start)) ||
    /^\s*\.(?:then|finally)\b/.test(text.slice(end, end + 40))
  );
}

/** What runs the closure that it is given when the call before it is done. */
const whenDone =
  /(^|\.)(then|finally|whenComplete|ContinueWith|addOnCompleteListener|addOnSuccessListener|thenAccept|thenRun)$/;

/** The start-up and the question for consent in whose closures a call is: it runs when they are done. */
function followed(
  { reading, language, profiles }: Source,
  { start, end }: SourceCall,
  network: string,
): { follows?: ('start' | 'consent')[] } {
  const gates = callsOfId(profiles, network, language.id).filter(
    ({ action }) => action === 'start' || action === 'consent',
  );
  if (gates.length === 0) return {};
  const around = reading.calls.filter((one) => one.start < start && end <= one.end);
  const follows = gates.flatMap((gate) => {
    const isGate = (one: SourceCall) => isCallOf(one, gate);
    const isAfter = around.some(
      (one) =>
        isGate(one) ||
        (whenDone.test(one.name) &&
          reading.calls.some((inner) => isGate(inner) && one.start <= inner.start && inner.end < start)),
    );
    return isAfter ? [gate.action as 'start' | 'consent'] : [];
  });
  return follows.length > 0 ? { follows: [...new Set(follows)] } : {};
}

function callsOfId(profiles: readonly Profile[], id: string, language: LanguageName): NamedCall[] {
  const profile = profiles.find((one) => one.id === id);
  return profile ? callsOf(profile, language) : [];
}

function argumentAt(
  { arguments: given }: SourceCall,
  id: number | string,
): readonly PlainValue[] | undefined {
  const found = typeof id === 'string' ? given.find(({ label }) => label === id) : given[id];
  return found?.values;
}

/** What is given as an ID: as it is written, and the IDs that it comes to in a variant. */
function idArgument(
  tree: Tree,
  file: CodeFile,
  variant: string,
  values: readonly PlainValue[],
): NonNullable<CodePlace['argument']> {
  const text = tree.text(file.path)?.text ?? '';
  const [first, last] = [values[0], values.at(-1)];
  const written = first && last ? text.slice(first.start, last.end).replace(/\s+/g, ' ').slice(0, 200) : '';
  return { written, ids: [...new Set(values.flatMap((value) => idsOf(tree, file, variant, value, 0)))] };
}

function idsOf(tree: Tree, file: CodeFile, variant: string, value: PlainValue, depth: number): string[] {
  if (value.is === 'text') return [value.value];
  if (value.is === 'other' || depth > 8) return [];
  const resolved = file.resolve?.(variant, value.name);
  if (resolved !== undefined) return [resolved];
  const own = readingOf(tree, file.path).constants;
  const parts = value.name.split('.');
  const short = parts
    .slice(-2)
    .join('.')
    .replace(/^(Self|Companion)\./, '');
  const here = (own.get(value.name) ?? own.get(short))?.filter(
    ({ start }) => file.compiled(variant, start, []) !== 'no',
  );
  const found = here ?? file.constants?.get(value.name) ?? file.constants?.get(short);
  return (found ?? []).flatMap((inner) =>
    inner === value ? [] : idsOf(tree, file, variant, inner, depth + 1),
  );
}

/** Where a dotted name is in code as a whole name. */
function places(code: string, name: string): number[] {
  const found: number[] = [];
  for (let at = code.indexOf(name); at >= 0; at = code.indexOf(name, at + name.length)) {
    const before = code[at - 1] ?? '';
    if (!/[A-Za-z0-9_$.]/.test(before) && !/[A-Za-z0-9_]/.test(code[at + name.length] ?? '')) found.push(at);
  }
  return found;
}
