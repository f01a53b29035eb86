import { getNodeValue, parseTree, printParseErrorCode, type Node, type ParseError } from 'jsonc-parser';
import type { ReadProblem } from '../../text/problem.js';

/** A JSON document with the place of every value; comments and trailing commas are taken as they come. */
export interface JsonDocument {
  root: Node | null;
  problems: ReadProblem[];
}

/** Documents longer than this (characters) are not read. */
export const maxJsonLength = 4_000_000;
/** Documents nested deeper than this are not read: a reader that calls itself would run out of stack. */
const maxDepth = 200;

/** What the reader finds wrong, by the names that it has for it. */
const errorWords = new Map([
  ['InvalidSymbol', 'there is an unknown word'],
  ['InvalidNumberFormat', 'a number has the wrong form'],
  ['PropertyNameExpected', 'the name of a field is missing'],
  ['ValueExpected', 'a value is missing'],
  ['ColonExpected', 'a colon is missing'],
  ['CommaExpected', 'a comma is missing'],
  ['CloseBraceExpected', 'a closing brace } is missing'],
  ['CloseBracketExpected', 'a closing bracket ] is missing'],
  ['EndOfFileExpected', 'more text follows its end'],
  ['InvalidCommentToken', 'a comment is not allowed here'],
  ['UnexpectedEndOfComment', 'a comment does not end'],
  ['UnexpectedEndOfString', 'a string does not end'],
  ['UnexpectedEndOfNumber', 'a number does not end'],
  ['InvalidUnicode', 'a Unicode escape has the wrong form'],
  ['InvalidEscapeCharacter', 'a string has an unknown escape'],
  ['InvalidCharacter', 'a string has a character that must be escaped'],
]);

/** Reads JSON. What cannot be read is a problem with its place; the rest is read all the same. */
export function readJson(text: string): JsonDocument {
  if (text.length > maxJsonLength)
    return {
      root: null,
      problems: [{ message: `It is longer than ${maxJsonLength} characters.`, start: 0, end: 0 }],
    };
  const deep = tooDeepAt(text);
  if (deep >= 0)
    return {
      root: null,
      problems: [{ message: `It is nested deeper than ${maxDepth}.`, start: deep, end: deep + 1 }],
    };
  const errors: ParseError[] = [];
  const root = parseTree(text, errors, { allowTrailingComma: true });
  const problems = errors.map(({ error, offset, length }) => ({
    message: `This is not valid JSON: ${errorWords.get(printParseErrorCode(error)) ?? 'it cannot be read here'}.`,
    start: offset,
    end: offset + length,
  }));
  return { root: root ?? null, problems };
}

/** The nodes that a way of keys leads to; `*` leads to every entry. */
export function nodesAt(root: Node | null, way: readonly string[]): Node[] {
  let nodes: Node[] = root ? [root] : [];
  for (const step of way) nodes = nodes.flatMap((node) => stepInto(node, step));
  return nodes;
}

/** A node's value as plain data. */
export function jsonValue(node: Node): unknown {
  return getNodeValue(node) as unknown;
}

function stepInto(node: Node, step: string): Node[] {
  const children = node.children ?? [];
  if (node.type === 'array')
    return step === '*' ? children : children[Number(step)] ? [children[Number(step)] as Node] : [];
  if (node.type !== 'object') return [];
  return children.flatMap((property) => {
    const [key, value] = property.children ?? [];
    return value && (step === '*' || key?.value === step) ? [value] : [];
  });
}

/** Where a document is nested deeper than is read; -1 for nowhere. */
export function tooDeepAt(text: string): number {
  let depth = 0;
  let quoted = false;
  for (let at = 0; at < text.length; at++) {
    const char = text[at];
    if (quoted) {
      if (char === '\\') at++;
      else if (char === '"') quoted = false;
    } else if (char === '"') quoted = true;
    else if (char === '{' || char === '[') {
      if (++depth > maxDepth) return at;
    } else if (char === '}' || char === ']') depth--;
  }
  return -1;
}
