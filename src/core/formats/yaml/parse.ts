import {
  Composer,
  type CST,
  Document,
  isScalar,
  LineCounter,
  Parser,
  visit,
  YAMLParseError,
  type ParsedNode,
} from 'yaml';
import type { ReadProblem } from '../../text/problem.js';

/** After this many faults the rest of a document is not read. */
const maxFaults = 100;

/**
 * Parses the first document of a text, with bounds: a text that is too long or nested too deep becomes an empty
 * document with a problem, and keys must be unique.
 * @param maxLength in UTF-16 units
 */
export function parseYaml(
  text: string,
  maxLength: number,
  lineCounter = new LineCounter(),
): { document: Document<ParsedNode>; problems: ReadProblem[] } {
  if (text.length > maxLength) return refused(`It is longer than ${maxLength} characters.`);
  const parser = new Parser(lineCounter.addNewLine);
  const tokens: CST.Token[] = [];
  let broken = 0;
  // The parser keeps a stack of its own; what composes a document calls itself, so the depth is known before that.
  for (const token of parser.parse(text)) {
    if (token.type === 'document' && depthOf(token) > maxYamlDepth)
      return refused(`It is nested more than ${maxYamlDepth} deep.`);
    tokens.push(token);
    if (token.type === 'error' && ++broken >= maxFaults) break;
  }
  const document = firstDocument(tokens, text.length, lineCounter);
  const faults = document.errors.map(({ message, pos: [start, end] }) => ({
    message: message.split('\n')[0] ?? message,
    start,
    end,
  }));
  return { document, problems: [...faults, ...repeatedKeys(document)].slice(0, maxFaults) };
}

function refused(message: string): { document: Document<ParsedNode>; problems: ReadProblem[] } {
  return { document: new Document<ParsedNode>(null), problems: [{ message, start: 0, end: 0 }] };
}

function firstDocument(tokens: CST.Token[], length: number, lineCounter: LineCounter): Document.Parsed {
  // The library compares each key with all others; `repeatedKeys` does it in one pass.
  const composer = new Composer({ lineCounter, prettyErrors: false, uniqueKeys: false });
  const documents = composer.compose(tokens, true, length);
  const document = documents.next().value as Document.Parsed;
  const second = documents.next();
  if (!second.done) {
    const [start, end] = second.value.range;
    const message = 'There is more than one document in the text.';
    document.errors.push(new YAMLParseError([start, end], 'MULTIPLE_DOCS', message));
  }
  return document;
}

/** Documents nested deeper than this are refused: near the end of its stack, Node.js itself may abort. */
const maxYamlDepth = 200;

/** How deep the collections of a document are nested. */
function depthOf(document: CST.Document): number {
  let deepest = 0;
  const waiting: { token: CST.Token; depth: number }[] = [];
  const add = (token: CST.Token | null | undefined, depth: number) => {
    if (token) waiting.push({ token, depth });
  };
  add(document.value, 1);
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { token, depth } = next;
    deepest = Math.max(deepest, depth);
    if (deepest > maxYamlDepth) return deepest;
    if ('items' in token)
      for (const { key, value } of token.items) {
        add(key, depth + 1);
        add(value, depth + 1);
      }
  }
  return deepest;
}

/** Keys that stand twice in one map: a reader would take one of them without a word. */
function repeatedKeys(document: Document): ReadProblem[] {
  const problems: ReadProblem[] = [];
  visit(document, {
    Map(_, { items }) {
      const seen = new Set<string>();
      for (const { key } of items) {
        if (!isScalar(key)) continue;
        const name = String(key.value);
        const [start = 0, end = 0] = key.range ?? [];
        if (seen.has(name))
          problems.push({ message: `The key ${name.slice(0, 80)} is twice in one map.`, start, end });
        if (problems.length >= maxFaults) return visit.BREAK;
        seen.add(name);
      }
      return undefined;
    },
  });
  return problems;
}
