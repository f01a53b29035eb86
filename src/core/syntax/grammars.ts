import { Language, Parser, type Node } from 'web-tree-sitter';
import { repaired } from './repair.js';

/** The name of a grammar: `kotlin` is the grammar of `tree-sitter-kotlin.wasm`. */
export type GrammarName = string;

export type { Node } from 'web-tree-sitter';

/** Returns a grammar's bytes. The core itself reads no files. */
export type GrammarSource = (file: string) => Uint8Array | Promise<Uint8Array>;

/**
 * Limits for parsing. The caller has to limit the time, because a parser may never stop by itself.
 */
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

/** Parses texts in the languages with loaded grammars. */
export interface Syntax {
  /**
   * Parses a text and passes its tree to `visit`. The tree is freed afterwards.
   * @returns what `visit` returns; undefined for a text that is too long
   * @throws ParserBrokenError when the runtime broke down on the text
   * @throws Error when the grammar of the language was not loaded
   */
  visit<Result>(grammar: GrammarName, text: string, visit: (root: Node) => Result): Result | undefined;
}

/** The grammars of a process. Each is loaded once, when a tree first needs it. */
export class Grammars implements Syntax {
  readonly #parsers = new Map<GrammarName, Promise<Parser>>();
  readonly #ready = new Map<GrammarName, Parser>();
  #runtime: Promise<void> | undefined;

  constructor(
    private readonly source: GrammarSource,
    private readonly limits: ParserLimits = usualParserLimits,
  ) {}

  /** Loads grammars, unless they are loaded already. */
  async load(grammars: Iterable<GrammarName>): Promise<void> {
    for (const grammar of new Set(grammars)) {
      const loading = this.#parsers.get(grammar) ?? this.parser(grammar);
      this.#parsers.set(grammar, loading);
      try {
        this.#ready.set(grammar, await loading);
      } catch (error) {
        // Whoever needs it next tries again.
        this.#parsers.delete(grammar);
        throw error;
      }
    }
  }

  visit<Result>(grammar: GrammarName, text: string, visit: (root: Node) => Result): Result | undefined {
    const parser = this.#ready.get(grammar);
    if (!parser) throw new Error(`The grammar ${grammar} was not loaded.`);
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
        throw new ParserBrokenError(`The parser of ${grammar} broke down.`, { cause: error });
      throw error;
    }
  }

  private async parser(grammar: GrammarName): Promise<Parser> {
    this.#runtime ??= this.initialise();
    await this.#runtime.catch((error: unknown) => {
      this.#runtime = undefined;
      throw error;
    });
    const parser = new Parser();
    const bytes = await this.source(`tree-sitter-${grammar}.wasm`);
    parser.setLanguage(await Language.load(repaired(grammar, bytes)));
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
