import type { Tree } from '../tree/tree.js';
import { readingOf, type CodeFile, type SharedNames } from './source-files.js';
import type { PlainValue, SourceReading } from './source-reading.js';

/** What several files give names; a name that two files give differently is left out. */
export function sharedNames(
  tree: Tree,
  paths: readonly string[],
  isCompiled: (path: string, value: PlainValue) => boolean = () => true,
): SharedNames {
  const shared = new Map<string, PlainValue[] | null>();
  const heirs = new Map<string, Set<string>>();
  for (const path of paths) {
    const reading = readingOf(tree, path);
    for (const { name, bases } of reading.types)
      for (const base of bases) heirs.set(base, (heirs.get(base) ?? new Set()).add(name));
    for (const [name, all] of named(reading)) {
      if (!name.includes('.')) continue;
      const values = all.filter((value) => isCompiled(path, value));
      if (all.length > 0 && values.length === 0) continue;
      const known = shared.get(name);
      const same = known === undefined || JSON.stringify(texts(known)) === JSON.stringify(texts(values));
      shared.set(name, same ? values : null);
    }
  }
  const values = [...shared].flatMap(([name, found]) => (found ? [[name, found] as const] : []));
  return { values: new Map(values), heirs };
}

function texts(values: readonly PlainValue[] | null): string[] {
  return (values ?? []).map((value) => (value.is === 'text' ? value.value : value.is));
}

const namedByReading = new WeakMap<SourceReading, ReadonlyMap<string, readonly PlainValue[]>>();

/** What constants, functions and computed properties of a file come to. */
function named(reading: SourceReading): ReadonlyMap<string, readonly PlainValue[]> {
  const known = namedByReading.get(reading);
  if (known) return known;
  const all = new Map<string, readonly PlainValue[]>();
  for (const part of [reading.constants, reading.results])
    for (const [name, values] of part) {
      const plain = values.filter(({ is }) => is !== 'other');
      if (plain.length > 0) all.set(name, [...(all.get(name) ?? []), ...plain]);
    }
  namedByReading.set(reading, all);
  return all;
}

const conditionsByReading = new WeakMap<
  SourceReading,
  ReadonlyMap<number, SourceReading['strings'][number]>
>();

/** The string of a value that begins at an offset, with the conditions around it; it begins after its quotes. */
export function stringAt(
  reading: SourceReading,
  start: number,
): SourceReading['strings'][number] | undefined {
  let known = conditionsByReading.get(reading);
  if (!known) {
    known = new Map(reading.strings.map((one) => [one.start, one]));
    conditionsByReading.set(reading, known);
  }
  const strings = known;
  return [0, 1, 2, 3, 4].map((quotes) => strings.get(start + quotes)).find((one) => one !== undefined);
}

/** How many steps from name to name are followed, and how many of them in all. */
const maxSteps = 8;
const maxTries = 200;
/** How many types that extend or implement another are tried. */
const maxHeirs = 50;

/** Every text that values of a file may come to in a variant, as far as names lead to texts. */
export function textsOf(
  tree: Tree,
  file: CodeFile,
  { variant, type, values }: { variant: string; type: string | null; values: readonly PlainValue[] },
): string[] {
  const reading = readingOf(tree, file.path);
  const seen = new Set<PlainValue>();
  const found = new Set<string>();
  const follow = (value: PlainValue, around: string | null, isHere: boolean, depth: number): void => {
    if (value.is === 'other' || depth > maxSteps || seen.has(value) || seen.size > maxTries) return;
    seen.add(value);
    if (value.is === 'text') {
      const at = isHere ? stringAt(reading, value.start) : undefined;
      if (!at || file.compiled(variant, at.start, at.context.conditions) !== 'no') found.add(value.value);
      return;
    }
    const resolved = file.resolve?.(variant, value.name);
    if (resolved !== undefined) {
      found.add(resolved);
      return;
    }
    for (const name of waysOf(value.name, around, reading)) {
      const own = named(reading)
        .get(name)
        ?.filter(({ start }) => file.compiled(variant, start, []) !== 'no');
      const isOwn = own !== undefined && own.length > 0;
      const there = isOwn ? own : file.shared?.values.get(name);
      if (!there) continue;
      const dot = name.indexOf('.');
      const within = dot > 0 ? name.slice(0, dot) : around;
      for (const inner of there) follow(inner, within, isOwn, depth + 1);
      return;
    }
    for (const heir of heirsOf(value.name, reading, file.shared)) {
      const own = named(reading).get(heir);
      const there = own ?? file.shared?.values.get(heir) ?? [];
      for (const inner of there) follow(inner, heir.split('.')[0] ?? null, own !== undefined, depth + 1);
    }
  };
  for (const value of values) follow(value, type, true, 0);
  return [...found];
}

/** The names under which a value may be known, the likeliest first. */
function waysOf(name: string, around: string | null, reading: SourceReading): string[] {
  const parts = name.split('.');
  const [head = '', ...rest] = parts;
  const typed = rest.length > 0 ? reading.variables.get(head) : undefined;
  return [
    ...new Set([
      ...(around === null ? [] : [`${around}.${name}`]),
      name,
      ...(typed === undefined ? [] : [[typed, ...rest].join('.')]),
      parts
        .slice(-2)
        .join('.')
        .replace(/^(Self|Companion)\./, ''),
      `.${name}`,
      // `Slot.FOOTER.id`: a member of an enum is known by its arguments, or has the values of its type.
      ...(parts.length > 2 ? [parts.slice(-3, -1).join('.'), `${head}.${parts.at(-1)}`] : []),
    ]),
  ];
}

/** The same name in every type that extends or implements the type of its head. */
function heirsOf(name: string, reading: SourceReading, shared: SharedNames | undefined): string[] {
  const [head = '', ...rest] = name.split('.');
  if (rest.length === 0) return [];
  const types = [reading.variables.get(head) ?? head];
  for (let at = 0; at < types.length; at++)
    for (const heir of shared?.heirs.get(types[at] ?? '') ?? [])
      if (types.length < maxHeirs && !types.includes(heir)) types.push(heir);
  return types.slice(1).map((type) => [type, ...rest].join('.'));
}
