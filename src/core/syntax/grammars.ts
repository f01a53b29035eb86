import { Language, Parser, type Node } from 'web-tree-sitter';

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

/** What parsing may cost. How long it may take is for whoever runs it to watch: a parser cannot be relied on to stop. */
export interface ParserLimits {
  /** Text longer than this (in UTF-16 units) is not parsed. */
  maxLength: number;
  /** The most memory (MB) that the parsers may take together. */
  maxMemory: number;
}

export const usualParserLimits: ParserLimits = { maxLength: 1_000_000, maxMemory: 256 };

/** The runtime of the parsers broke down, out of memory or stack. Nothing more can be parsed in this thread. */
export class ParserBrokenError extends Error {
  override readonly name = 'ParserBrokenError';
}

/** Parses nothing: what a text says without its syntax tree is all that is known of it. */
export const withoutSyntax: Syntax = { visit: () => undefined };

/** Bytes of WebAssembly memory come in pages of this size. */
const pageSize = 65_536;
/** What the runtime needs to start (MB). */
const initialMemory = 32;

/** Parses texts in the languages whose grammars were loaded. */
export interface Syntax {
  /**
   * Parses a text and passes its tree to `visit`. The tree is freed afterwards.
   * @returns what `visit` returns; undefined for a text that is too long
   * @throws ParserBrokenError when the runtime broke down on the text
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
    private readonly limits: ParserLimits = usualParserLimits,
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
    if (text.length > this.limits.maxLength) return undefined;
    try {
      const tree = parser.parse(text);
      if (!tree) return undefined;
      try {
        return visit(tree.rootNode);
      } finally {
        tree.delete();
      }
    } catch (error) {
      // A stack that overflowed may have done so inside the runtime, which then is as it was in the middle of a call.
      if (error instanceof RangeError || error instanceof WebAssembly.RuntimeError)
        throw new ParserBrokenError(`The parser of ${language} broke down.`, { cause: error });
      throw error;
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
    const pages = (megabytes: number) => (megabytes * 1024 * 1024) / pageSize;
    await Parser.init({
      wasmBinary: await this.source('tree-sitter.wasm'),
      wasmMemory: new WebAssembly.Memory({
        initial: pages(initialMemory),
        maximum: pages(Math.max(initialMemory, this.limits.maxMemory)),
      }),
      printErr: () => undefined,
    });
  }
}
