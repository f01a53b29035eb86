import type { Profile } from '../network/model.js';
import type { LanguageCalls } from '../network/calls.js';
import { placementNames } from '../placebook/model.js';
import type { SurveyContext } from '../roster/survey-context.js';
import type { CodePlace, Fact } from '../facts/model.js';
import { placeAt } from '../facts/place.js';
import type { Tree } from '../tree/tree.js';
import { codePlace } from './facts.js';
import { codeLanguages, languageOf } from './languages/index.js';
import { codeAlone } from './literals.js';
import type { PlainValue, SourceCall, SourceReading } from './source-reading.js';
import type { CodeLanguage } from '../syntax/shape.js';
import { isPlacebook, readingOf, type CodeFile } from './source-files.js';
import { groupBy } from '../text/group-by.js';

/** A call that a network's profile names. */
interface NamedCall {
  network: string;
  call: string;
  does: string;
  /** The argument that takes an ID: counted from 0, or its label. */
  id: number | string | undefined;
}

/** Names shorter than this would fit too many files. */
const minNeedle = 6;

/**
 * The texts by which source files are found that call an SDK, answer it, or name a placement through the
 * placebook: what such a file has to import, and the class that starts the SDK. Few, because every file of a
 * tree is searched for all of them at once.
 */
export function callNeedles(profiles: readonly Profile[]): string[] {
  const languages = codeLanguages.map(({ language }) => language.id);
  const found = profiles.flatMap((profile) =>
    languages.flatMap((language) => {
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

/** Works something out for a profile and a language once: every file asks for it. */
function oncePer<Result>(make: (profile: Profile, language: CodeLanguage['id']) => Result) {
  const known = new WeakMap<Profile, Map<string, Result>>();
  return (profile: Profile, language: CodeLanguage['id']): Result => {
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
  const named = (does: string, call: { call: string; id?: number | string | undefined } | undefined) =>
    call ? [{ network: profile.id, call: call.call, does, id: call.id }] : [];
  return [
    ...named('start', calls.start),
    ...named('test devices', calls['test-devices']),
    ...named('listen', calls.listeners && { call: calls.listeners.add }),
    ...named('stop listening', calls.listeners && { call: calls.listeners.remove }),
    ...Object.entries(calls.formats).flatMap(([format, { load, show, view, release }]) => [
      ...named(`load ${format}`, load),
      ...named(`view ${format}`, view),
      ...named(`show ${format}`, show),
      ...named(`release ${format}`, release),
    ]),
  ];
});

const callbacksOf = oncePer((profile, language): { event: string; name: string }[] => {
  const found = Object.values(profile.code[language]?.formats ?? {}).flatMap(({ callbacks }) =>
    Object.entries(callbacks).map(([event, name]) => ({ event, name })),
  );
  const completed = profile.code[language]?.start.completed;
  if (completed !== undefined) found.push({ event: 'completed', name: completed });
  return [...new Map(found.map((item) => [`${item.event} ${item.name}`, item])).values()];
});

/** A file's code with comments and the contents of strings blanked out; kept with its other readings. */
const nestingCode = (text: string) => ({
  code: codeAlone(text, { nestedComments: true, tripleQuotes: true }),
  problems: [],
});
const plainCode = (text: string) => ({
  code: codeAlone(text, { nestedComments: false, tripleQuotes: true }),
  problems: [],
});

/** Facts for calls of SDKs in a source file, its answers to their callbacks, and placements that it names. */
export function callFacts(tree: Tree, file: CodeFile, { profiles, title }: SurveyContext): Fact[] {
  const document = tree.text(file.path);
  const language = languageOf(file.path);
  if (!document || !language || isPlacebook(tree, file.path)) return [];
  const reading = readingOf(tree, file.path);
  const facts: Fact[] = [];
  const add = (
    kind: Fact['kind'],
    at: { start: number; end: number },
    value: string,
    more: Partial<Fact>,
  ) => {
    const conditions = more.code?.conditions ?? [];
    const variants = file.variants.filter((variant) => file.compiled(variant, at.start, conditions) !== 'no');
    if (variants.length === 0) return;
    const place = placeAt(file.path, document, at);
    const { platform, module } = file;
    const chain = [{ what: 'code', value, place }];
    facts.push({ kind, network: null, platform, module, variants, value, place, chain, ...more });
  };
  const mine = profiles.filter((profile) => profile[file.platform]);
  const named = groupBy(
    mine.flatMap((profile) => callsOf(profile, language.id)),
    ({ call }) => lastPart(call),
  );
  for (const call of reading.calls) {
    for (const { network, call: wanted, does, id } of named.get(lastPart(call.name)) ?? []) {
      if (call.name !== wanted && !call.name.endsWith(`.${wanted}`)) continue;
      const span = { start: call.start, end: Math.min(call.end, call.start + 200) };
      const given = id === undefined ? undefined : argumentAt(call, id);
      // What is given may differ by variant, so each variant is a fact; equal ones are put together later.
      for (const variant of given ? file.variants : [null]) {
        const argument = given && variant !== null ? idArgument(tree, file, variant, given) : undefined;
        const waits = language.id === 'typescript' ? waitingFor(document.text, call, reading) : undefined;
        const code = codePlace(call.context, { ...(argument && { argument }), ...(waits && { waits }) });
        const before = facts.length;
        const held = does.startsWith('view ') ? { standsIn: call.heldAt ?? 'its own component' } : {};
        add('call', span, wanted, { network, name: does, code, ...held });
        const made = facts[before];
        if (!made || variant === null) continue;
        if (made.variants.includes(variant)) made.variants = [variant];
        else facts.length = before;
      }
    }
  }
  for (const profile of mine)
    for (const { event, name } of callbacksOf(profile, language.id))
      for (const method of reading.methods.filter((candidate) => candidate.name === name)) {
        const span = { start: method.start, end: Math.min(method.end, method.start + 200) };
        const code = codePlace(method.context, { empty: method.empty });
        add('callback', span, name, { network: profile.id, name: event, code });
      }
  if (!document.text.includes('Placebook.')) return facts;
  const { code } = tree.read(file.path, language.id === 'java' ? plainCode : nestingCode) ?? { code: '' };
  for (const placement of Object.keys(title?.placements ?? {})) {
    for (const name of placementNames(placement))
      for (const at of places(code, name))
        add('placement-use', { start: at, end: at + name.length }, name, { placement, name: placement });
  }
  return facts;
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
  const isAwaited = (one: { start: number; end: number }) =>
    /\bawait\s+(?:[\w$]+\.)*$/.test(text.slice(Math.max(0, one.start - 80), one.start)) ||
    /^\s*\.(?:then|finally)\b/.test(text.slice(one.end, one.end + 40));
  const together = inside.filter(({ name }) => /(^|\.)(all|allSettled)$/.test(name));
  const awaited = [{ start, end }, ...together].some(isAwaited);
  return awaited ? (around ? 'limited' : 'open') : undefined;
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

/** Where a dotted name stands in code as a whole name. */
function places(code: string, name: string): number[] {
  const found: number[] = [];
  for (let at = code.indexOf(name); at >= 0; at = code.indexOf(name, at + name.length)) {
    const before = code[at - 1] ?? '';
    if (!/[A-Za-z0-9_$.]/.test(before) && !/[A-Za-z0-9_]/.test(code[at + name.length] ?? '')) found.push(at);
  }
  return found;
}
