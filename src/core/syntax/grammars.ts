import { Language, Node, Parser } from 'web-tree-sitter';

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

/**
 * What a node is, and where it ends, never changes. But whenever it is asked, the node is written into the grammar's
 * memory and the grammar is called; readers ask often, so the answer is kept with the node.
 */
for (const question of ['type', 'endIndex'] as const) {
  const asked = Object.getOwnPropertyDescriptor(Node.prototype, question);
  const kept = Symbol(question);
  if (!asked?.get) throw new Error(`Nodes of syntax trees have no ${question}.`);
  Object.defineProperty(Node.prototype, question, {
    configurable: true,
    get(this: Node & Record<symbol, unknown>) {
      return (this[kept] ??= asked.get?.call(this) as unknown);
    },
  });
}

/** What hands over a grammar's bytes: the core reads no files. */
export type GrammarSource = (file: string) => Uint8Array | Promise<Uint8Array>;

/** Text longer than this (in UTF-16 units) is not read by syntax tree. */
export const maxSyntaxLength = 1_000_000;

/** A text is to be read in a language that was not made ready. */
export class GrammarMissingError extends Error {
  constructor(readonly language: SyntaxLanguage) {
    super(`The grammar of ${language} was not loaded.`);
    this.name = 'GrammarMissingError';
  }
}

const parsers = new Map<SyntaxLanguage, Parser>();
let runtime: Promise<void> | undefined;

/** Makes languages ready to be read. Those that are ready cost nothing. */
export async function loadGrammars(
  languages: Iterable<SyntaxLanguage>,
  source: GrammarSource,
): Promise<void> {
  for (const language of new Set(languages)) {
    if (parsers.has(language)) continue;
    runtime ??= Promise.resolve(source('tree-sitter.wasm')).then((wasmBinary) => Parser.init({ wasmBinary }));
    await runtime;
    const grammar = await Language.load(await source(grammarFiles[language]));
    const parser = new Parser();
    parser.setLanguage(grammar);
    parsers.set(language, parser);
  }
}

/**
 * Parses a text and lets `visit` look at its tree, which is gone afterwards. Undefined for a text that is too
 * long, or that the parser gives up on.
 * @throws GrammarMissingError when the language was never made ready
 */
export function visitSyntax<Result>(
  language: SyntaxLanguage,
  text: string,
  visit: (root: Node) => Result,
): Result | undefined {
  const parser = parsers.get(language);
  if (!parser) throw new GrammarMissingError(language);
  if (text.length > maxSyntaxLength) return undefined;
  const tree = parser.parse(text);
  if (!tree) return undefined;
  try {
    return visit(tree.rootNode);
  } finally {
    tree.delete();
  }
}
