import type { Platform } from '../words/words.js';
import { placebookMark } from '../languages/common/placebook.js';
import type { ReadProblem } from '../text/problem.js';
import type { Reader, Tree } from '../tree/tree.js';
import type { Compiled } from '../syntax/compiled.js';
import { dialectOf, dialects, languageOf, languages } from '../languages/index.js';
import { codeAlone, stringLiterals } from '../syntax/literals.js';
import { readSource } from './read-source.js';
import type { Condition, PlainValue, SourceReading } from './source-reading.js';
import type { Dialect, Language } from '../languages/language.js';

/** What the source files of a module tell each other. */
export interface SharedNames {
  /** What constants, functions and computed properties come to, by `Type.name`; `.name` for those of no type. */
  values: ReadonlyMap<string, readonly PlainValue[]>;
  /** The types that extend or implement a type. */
  heirs: ReadonlyMap<string, ReadonlySet<string>>;
}

/** A source file to look for IDs and calls in, and the variants that may compile it. */
export interface CodeFile {
  path: string;
  platform: Platform;
  module: string;
  variants: readonly string[];
  /** Whether a variant compiles what is at an offset, under conditions. */
  compiled(variant: string, offset: number, conditions: readonly Condition[]): Compiled;
  /** The value of a name that the build provides to code: a string resource, a build constant. */
  resolve?(variant: string, name: string): string | undefined;
  /** What names stand for in all source files of the module. */
  shared?: SharedNames;
  /** The source files of the module, this one among them, where they may use what this one holds. */
  siblings?: readonly CodeFile[];
}

const nothing: SourceReading = {
  strings: [],
  calls: [],
  methods: [],
  types: [],
  choices: [],
  constants: new Map(),
  results: new Map(),
  variables: new Map(),
  stretches: [],
  holders: [],
};
const tooCostly: ReadProblem = {
  kind: 'not-read',
  message: 'Not parsed: it takes too long or too much memory. Only its string literals were read.',
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

/** A file's code with comments and the contents of strings blanked out; kept with its other readings. */
const codeReaders = new Map(
  languages.map(({ id, literals }) => [
    id,
    (text: string) => ({ code: codeAlone(text, literals), problems: [] }),
  ]),
);

/** The code of a file, comments and the contents of strings blanked out. */
export function codeOf(tree: Tree, path: string): string {
  const language = languageOf(path);
  const reader = language && codeReaders.get(language.id);
  return (reader && tree.read(path, reader)?.code) ?? '';
}

/** Whether a file is a placebook that Syndexa wrote. */
export function isPlacebook(tree: Tree, path: string): boolean {
  return tree.text(path)?.text.slice(0, 400).includes(placebookMark) ?? false;
}
