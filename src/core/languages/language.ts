import type { LiteralSyntax } from '../syntax/literals.js';
import type { CodeLanguage } from '../syntax/shape.js';
import type { TextDocument } from '../text/document.js';
import type { Edit } from '../text/edit.js';
import type { Platform, Stage } from '../words/words.js';
import type { PlacebookOptions, PlacebookStage } from './common/placebook.js';
import type { SharedBooks } from './common/platforms.js';

/** A programming language: how it is read and written. Each language has a folder of its own. */
export interface Language<Id extends string = string> {
  /** Its name in profiles. */
  id: Id;
  /** The platform with native code in this language; undefined if one source serves both. */
  native?: Platform;
  /** How its files are read. Dialects differ in their grammar, and in the ends of their files' names. */
  dialects: readonly Dialect[];
  /** How comments and strings are written. */
  literals: LiteralSyntax;
  placebook: PlacebookWriter;
  /** How code names what the placebook holds. */
  reference: {
    /** The unit ID of a placement on a network. */
    unit(placement: string, network: string): string;
    /** The app ID that a network takes in its start-up call. */
    app(network: string): string;
    /** The reference with the syntax that it needs in the place of a literal. */
    inPlace?(reference: string, literal: LiteralPlace): string;
  };
  /** The edits by which a file sees the placebook. */
  importPlacebook(file: TextDocument, book: BookPlace): Edit[];
  /** Whether code waits for promises. */
  hasPromises?: true;
  /** Whether other files cannot see what a file gives a name. */
  isPrivate?(name: string, code: string): boolean;
  /** Whether an application begins at a file, where it usually does or where a build may say so. */
  entry?(path: string, code: string): 'usual' | 'other' | undefined;
  /** Quotes of plain literals besides `"` and `'`. */
  quotes?: string;
  /** Compile-time constants, which a reference to the placebook cannot be. */
  constant?: {
    /** Finds the word before a literal. */
    word: RegExp;
    /** Returns the replacement for that word. */
    instead(isLocal: boolean): string;
  };
}

export interface Dialect {
  suffixes: readonly string[];
  syntax: CodeLanguage;
}

/** The place of a literal that a reference replaces. */
export interface LiteralPlace {
  /** The character before it. */
  before: string | undefined;
  /** Whether it is an argument of a call. */
  isArgument: boolean;
}

/** Where the placebook is, seen from a file that needs it. */
export interface BookPlace {
  /** The package or namespace that it is in, or the name or URI by which it is imported. */
  packageName: string | undefined;
  /** Its path. */
  bookPath: string | undefined;
  /** The path of the file. */
  path: string;
  /** The names of the placebook that the file uses. */
  names: () => string[];
}

/** What writes a placebook: for one stage, for one platform, or for everything at once. */
export type PlacebookWriter =
  | {
      scope: 'stage';
      files: readonly string[];
      write(
        book: PlacebookStage,
        options: PlacebookOptions & { packageName: string; stage: Stage },
      ): string[];
    }
  | {
      scope: 'platform';
      files: readonly string[];
      write(
        books: Record<Stage, PlacebookStage>,
        options: PlacebookOptions & { testCondition: string },
      ): string[];
    }
  | {
      scope: 'all';
      files: readonly string[];
      write(books: SharedBooks, options: SharedBookOptions): string[];
    };

/** Options for writing a placebook that serves both platforms. */
export interface SharedBookOptions extends PlacebookOptions {
  /** What holds in the builds of the test stage. */
  testCondition: string;
  /** The names that are defined in the builds of each platform, in languages with a preprocessor. */
  symbols?: Record<Platform, string>;
  namespace?: string | undefined;
}

/** Returns the language unchanged and keeps its literal types. */
export function defineLanguage<const Defined extends Language>(language: Defined): Defined {
  return language;
}
