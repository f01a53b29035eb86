import type { Platform } from '../words/words.js';
import { placebookMark } from '../languages/common/placebook.js';
import type { ReadProblem } from '../text/problem.js';
import type { Reader, Tree } from '../tree/tree.js';
import type { Compiled } from '../syntax/compiled.js';
import { dialectOf, dialects } from '../languages/index.js';
import { stringLiterals } from '../syntax/literals.js';
import { readSource } from './read-source.js';
import type { Condition, PlainValue, SourceReading } from './source-reading.js';
import type { Dialect, Language } from '../languages/language.js';

/** A source file to look for IDs and calls in, and the variants that may compile it. */
export interface CodeFile {
  path: string;
  platform: Platform;
  module: string;
  variants: readonly string[];
  /** Whether a variant compiles what is at an offset, under conditions. */
  compiled(variant: string, offset: number, conditions: readonly Condition[]): Compiled;
  /** What a name stands for that the build gives to code: a string resource, a build constant. */
  resolve?(variant: string, name: string): string | undefined;
  /** Constants of all source files of the module, by `Type.name`. */
  constants?: ReadonlyMap<string, readonly PlainValue[]>;
}

const nothing: SourceReading = {
  strings: [],
  calls: [],
  methods: [],
  types: [],
  choices: [],
  constants: new Map(),
};
const tooCostly: ReadProblem = {
  kind: 'not-read',
  message: 'Not read: it is too costly to parse; its string literals are all that is known of it.',
  start: 0,
  end: 0,
};

/** The reader of the files of each dialect. */
export const sourceReaders: ReadonlyMap<
  Dialect,
  Reader<{ reading: SourceReading; problems: ReadProblem[] }>
> = new Map(
  dialects.map(({ language, dialect }) => [
    dialect,
    (text, syntax) => {
      const reading = readSource(dialect.syntax, text, syntax);
      return reading
        ? { reading, problems: [] }
        : { reading: byLiterals(language, text), problems: [tooCostly] };
    },
  ]),
);

/** What a source file says; nothing for one in a language that is not read. */
export function readingOf(tree: Tree, path: string): SourceReading {
  const found = dialectOf(path);
  const reader = found && sourceReaders.get(found.dialect);
  return (reader && tree.read(path, reader)?.reading) ?? nothing;
}

/** A file that is too long for its syntax tree gives its string literals alone. */
function byLiterals({ literals }: Language, text: string): SourceReading {
  const context = { type: null, method: null, methods: [], conditions: [] };
  const strings = stringLiterals(text, literals);
  return { ...nothing, strings: strings.map((literal) => ({ ...literal, flow: null, context })) };
}

/** Whether a file is a placebook that Syndexa wrote. */
export function isPlacebook(tree: Tree, path: string): boolean {
  return tree.text(path)?.text.slice(0, 400).includes(placebookMark) ?? false;
}

/** The constants of several files by `Type.name`; a name that two files give differently is left out. */
export function sharedConstants(
  tree: Tree,
  paths: readonly string[],
  isCompiled: (path: string, value: PlainValue) => boolean = () => true,
): Map<string, PlainValue[]> {
  const shared = new Map<string, PlainValue[] | null>();
  for (const path of paths) {
    for (const [name, all] of readingOf(tree, path).constants) {
      if (!name.includes('.')) continue;
      const values = all.filter((value) => isCompiled(path, value));
      const known = shared.get(name);
      const same = known === undefined || JSON.stringify(texts(known)) === JSON.stringify(texts(values));
      shared.set(name, same ? values : null);
    }
  }
  return new Map([...shared].flatMap(([name, values]) => (values ? [[name, values] as const] : [])));
}

function texts(values: readonly PlainValue[] | null): string[] {
  return (values ?? []).map((value) => (value.is === 'text' ? value.value : value.is));
}
