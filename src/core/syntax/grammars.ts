import { Language, Parser, type Node } from 'web-tree-sitter';
import { nestsBeyondReason } from './nesting.js';

/** The languages that are read by syntax tree, and the grammar that reads each. */
export const grammarFiles = {
  kotlin: 'tree-sitter-kotlin.wasm',
  java: 'tree-sitter-java.wasm',
  swift: 'tree-sitter-swift.wasm',
  'objective-c': 'tree-sitter-objc.wasm',
  ruby: 'tree-sitter-ruby.wasm',
  dart: 'tree-sitter-dart.wasm',
  typescript: 'tree-sitter-typescript.wasm',
  tsx: 'tree-sitter-tsx.wasm',
  csharp: 'tree-sitter-c_sharp.wasm',
} as const;
export type SyntaxLanguage = keyof typeof grammarFiles;

export type { Node } from 'web-tree-sitter';

/** Returns a grammar's bytes. The core itself reads no files. */
export type GrammarSource = (file: string) => Uint8Array | Promise<Uint8Array>;

/** Text longer than this (in UTF-16 units) is not parsed. */
export const maxSyntaxLength = 1_000_000;

/** How long parsing one text may take. A text that a grammar recovers from badly takes time by the square. */
export interface ParseBudget {
  /** A clock (milliseconds). */
  now: () => number;
  /** The most time (milliseconds) for one text. */
  budget: number;
}

/** Parses texts in the languages whose grammars were loaded. */
export interface Syntax {
  /**
   * Parses a text and passes its tree to `visit`. The tree is freed afterwards.
   * @returns what `visit` returns; undefined for a text that is too long, too deep, or takes too long
   * @throws Error when the grammar of the language was not loaded
   */
  visit<Result>(language: SyntaxLanguage, text: string, visit: (root: Node) => Result): Result | undefined;
}

/** The grammars of a process. Each is loaded once, when a tree first needs it. */
export class Grammars implements Syntax {
  readonly #parsers = new Map<SyntaxLanguage, Promise<Parser>>();
  readonly #ready = new Map<SyntaxLanguage, Parser>();
  #runtime: Promise<void> | undefined;

  constructor(
    private readonly source: GrammarSource,
    private readonly limits: ParseBudget,
  ) {}

  /** Loads the grammars of these languages, unless they are loaded already. */
  async load(languages: Iterable<SyntaxLanguage>): Promise<void> {
    for (const language of new Set(languages)) {
      const loading = this.#parsers.get(language) ?? this.parser(language);
      this.#parsers.set(language, loading);
      try {
        this.#ready.set(language, await loading);
      } catch (error) {
        // Whoever needs it next tries again.
        this.#parsers.delete(language);
        throw error;
      }
    }
  }

  visit<Result>(language: SyntaxLanguage, text: string, visit: (root: Node) => Result): Result | undefined {
    const parser = this.#ready.get(language);
    if (!parser) throw new Error(`The grammar of ${language} was not loaded.`);
    if (text.length > maxSyntaxLength || nestsBeyondReason(text)) return undefined;
    const { now, budget } = this.limits;
    const end = now() + budget;
    const tree = parser.parse(text, null, { progressCallback: () => now() > end });
    if (!tree) {
      // A parser that was stopped would go on with the old text.
      parser.reset();
      return undefined;
    }
    try {
      return visit(tree.rootNode);
    } finally {
      tree.delete();
    }
  }

  private async parser(language: SyntaxLanguage): Promise<Parser> {
    this.#runtime ??= this.initialise();
    await this.#runtime.catch((error: unknown) => {
      this.#runtime = undefined;
      throw error;
    });
    const parser = new Parser();
    parser.setLanguage(await Language.load(await this.source(grammarFiles[language])));
    return parser;
  }

  private async initialise(): Promise<void> {
    await Parser.init({ wasmBinary: await this.source('tree-sitter.wasm') });
  }
}
