import {
  Composer,
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
 * document with a problem, and no key stands twice.
 * @param maxLength in UTF-16 units
 */
export function parseYaml(
  text: string,
  maxLength: number,
  lineCounter = new LineCounter(),
): { document: Document<ParsedNode>; problems: ReadProblem[] } {
  const refused =
    text.length > maxLength
      ? `It is longer than ${maxLength} characters.`
      : nestsTooDeep(text)
        ? `It is nested more than ${maxYamlDepth} deep.`
        : undefined;
  if (refused !== undefined)
    return {
      document: new Document<ParsedNode>(null),
      problems: [{ message: refused, start: 0, end: 0 }],
    };
  const document = firstDocument(text, lineCounter);
  const faults = document.errors.map(({ message, pos: [start, end] }) => ({
    message: message.split('\n')[0] ?? message,
    start,
    end,
  }));
  return { document, problems: [...faults, ...repeatedKeys(document)].slice(0, maxFaults) };
}

function firstDocument(text: string, lineCounter: LineCounter): Document.Parsed {
  // The library compares each key with all others; `repeatedKeys` does it in one pass.
  const composer = new Composer({ lineCounter, prettyErrors: false, uniqueKeys: false });
  const parser = new Parser(lineCounter.addNewLine);
  let faults = 0;
  const tokens = function* () {
    for (const token of parser.parse(text)) {
      yield token;
      if (token.type === 'error' && ++faults >= maxFaults) return;
    }
  };
  const documents = composer.compose(tokens(), true, text.length);
  const document = documents.next().value as Document.Parsed;
  const second = documents.next();
  if (!second.done) {
    const [start, end] = second.value.range;
    const message = 'There is more than one document in the text.';
    document.errors.push(new YAMLParseError([start, end], 'MULTIPLE_DOCS', message));
  }
  return document;
}

/** Documents nested deeper than this are refused: near the end of its stack, Node.js itself may give up. */
const maxYamlDepth = 200;

/**
 * Whether a document may be nested too deep, told without parsing it: by brackets that are open at once, by marks that
 * open several levels in one line, and by levels of indentation. It never tells less than the parser would find.
 */
function nestsTooDeep(text: string): boolean {
  let open = 0;
  const levels: number[] = [];
  for (const [line] of text.matchAll(/[^\r\n]+/g)) {
    // A comment that follows a quote may be part of what is quoted.
    const code = /["']/.test(line) ? line : line.replace(/(^|\s)#.*$/, '');
    const lead = /^(?:[ \t]*[?:-](?=[ \t]|$))*/.exec(code)?.[0] ?? '';
    const indent = /^ */.exec(code)?.[0].length ?? 0;
    if (indent < code.length) {
      while ((levels.at(-1) ?? -1) >= indent) levels.pop();
      levels.push(indent);
    }
    for (const char of code.match(/[[\]{}]/g) ?? [])
      open = Math.max(0, open + (char === '[' || char === '{' ? 1 : -1));
    const marks = lead.match(/[?:-]/g)?.length ?? 0;
    if (levels.length + marks > maxYamlDepth || open > maxYamlDepth) return true;
  }
  return false;
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
          problems.push({ message: `The key ${name.slice(0, 80)} stands twice in one map.`, start, end });
        if (problems.length >= maxFaults) return visit.BREAK;
        seen.add(name);
      }
      return undefined;
    },
  });
  return problems;
}
