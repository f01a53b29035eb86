import type { ReadProblem, Span } from '../../text/problem.js';

/** An entry of a map, or an item of a list (whose key is `-`). */
export interface UnityNode extends Span {
  key: string;
  /** The value of the scalar, without quotes; empty if it has children. */
  value: string;
  /** The range of the scalar, with quotes; where one would go in a line without one. */
  valueSpan: Span;
  indent: number;
  children: UnityNode[];
}

export interface UnityYaml {
  /** The objects of the file, each under the name of its class, such as `PlayerSettings`. */
  objects: UnityNode[];
  problems: ReadProblem[];
}

/** Files longer than this (characters) are not read: scenes are, settings never. */
export const maxUnityLength = 4_000_000;
const maxDepth = 64;

const keyed =
  /^("(?:[^"\\]|\\.)*"|'(?:[^']|'')*'|[^\s:"'{}[\],#&*!|>%@`-][^:"'{}[\]#]*|-[^\s:][^:]*):(?=[ \t]|$)[ \t]*/;

/**
 * Reads the YAML that Unity writes (Unity manual, "Format of text-serialized files"): objects in block form, scalars
 * in one line or folded into further ones, and short maps in braces, which are taken for scalars. Every value has its
 * place. Anchors and tags are not supported, so they cannot make a file grow.
 */
export function readUnityYaml(text: string): UnityYaml {
  if (text.length > maxUnityLength)
    return {
      objects: [],
      problems: [{ message: `It is longer than ${maxUnityLength} characters.`, start: 0, end: 0 }],
    };
  const reader = new UnityReader(text);
  for (const match of text.matchAll(/([^\r\n]*)(\r\n|\n|\r|$)/g)) {
    const [whole, line = ''] = match;
    reader.line(line, match.index, match.index + whole.length);
  }
  const { objects, problems } = reader;
  return { objects, problems };
}

/** Reads line by line. */
class UnityReader {
  readonly objects: UnityNode[] = [];
  readonly problems: ReadProblem[] = [];
  /** The nodes that are open, the outermost first. */
  private open: UnityNode[] = [];

  constructor(private readonly text: string) {}

  /** Takes a line that is from `start` to `end`, its line end included. */
  line(line: string, start: number, end: number): void {
    if (/^(---|%|\.\.\.)/.test(line)) {
      this.open = [];
      return;
    }
    const indent = /^ */.exec(line)?.[0].length ?? 0;
    if (indent === line.length || line[indent] === '#') return;
    if (/^(<{7}|={7}|>{7})( |$)/.test(line)) {
      this.problems.push({
        message: 'There is an unresolved merge conflict here.',
        start,
        end: start + line.length,
      });
      return;
    }
    const at = this.items(line, indent, { start, end });
    if (at >= line.length) return;
    const found = keyed.exec(line.slice(at));
    const [head = '', key = ''] = found ?? [];
    if (found) {
      const raw = line.slice(at + head.length);
      const place = { indent: at, start, end, valueStart: start + at + head.length, raw };
      this.add(nodeOf(unquoted(key.trim()), place));
      return;
    }
    const last = this.open.at(-1);
    if (last && last.children.length === 0 && indent > last.indent && last.value !== '')
      goOn(this.text, last, end);
    else {
      const message = 'This line is neither a key nor a value.';
      this.problems.push({ message, start: start + at, end: start + line.length });
    }
  }

  /** Reads the `- ` marks that open items at the start of a line. Returns the column of what follows them. */
  private items(line: string, indent: number, { start, end }: Span): number {
    let at = indent;
    for (let items = 0; items < maxDepth && /^-( |$)/.test(line.slice(at)); items++) {
      const mark = at;
      at += 1 + (/^ */.exec(line.slice(at + 1))?.[0].length ?? 0);
      const rest = line.slice(at);
      const isPlain = !keyed.test(rest) && !/^-( |$)/.test(rest);
      const raw = isPlain ? rest : '';
      this.add(nodeOf('-', { indent: mark, start, end, valueStart: start + at, raw }));
      if (isPlain) at = line.length;
    }
    return at;
  }

  private add(node: UnityNode): void {
    const { open } = this;
    const isItem = node.key === '-';
    // The items of a list are at the indentation of its key.
    while (open.length > 0) {
      const last = open.at(-1);
      if (!last || last.indent < node.indent || (isItem && last.key !== '-' && last.indent === node.indent))
        break;
      open.pop();
    }
    const holder = open.at(-1);
    (holder ? holder.children : this.objects).push(node);
    if (open.length < maxDepth) open.push(node);
    for (const one of open) one.end = Math.max(one.end, node.end);
  }
}

function nodeOf(
  key: string,
  {
    indent,
    start,
    end,
    valueStart,
    raw,
  }: { indent: number; start: number; end: number; valueStart: number; raw: string },
): UnityNode {
  const written = raw.trimEnd();
  const valueSpan = { start: valueStart, end: valueStart + written.length };
  return { key, value: unquoted(written), valueSpan, indent, children: [], start, end };
}

/** A scalar that goes on in the next line: its line ends count as blanks. */
function goOn(text: string, node: UnityNode, end: number): void {
  const written = text.slice(node.valueSpan.start, end).trimEnd();
  node.valueSpan.end = node.valueSpan.start + written.length;
  node.value = unquoted(written.replace(/\s*[\r\n]+\s*/g, ' '));
  node.end = end;
}

function unquoted(written: string): string {
  if (/^'[\s\S]*'$/.test(written) && written.length > 1) return written.slice(1, -1).replace(/''/g, "'");
  if (/^"[\s\S]*"$/.test(written) && written.length > 1)
    return written
      .slice(1, -1)
      .replace(/\\(["\\/])/g, '$1')
      .replace(/\\n/g, '\n')
      .replace(/\\t/g, '\t');
  return written;
}

/** The node that a way of keys leads to; undefined where there is none. */
export function unityNode({ objects }: UnityYaml, way: readonly string[]): UnityNode | undefined {
  let [found, among] = [undefined as UnityNode | undefined, objects];
  for (const key of way) {
    found = among.find((node) => node.key === key);
    if (!found) return undefined;
    among = found.children;
  }
  return found;
}
