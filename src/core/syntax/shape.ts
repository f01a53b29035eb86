import type { HeldAt } from '../words/names.js';
import type { GrammarName, Node } from './grammars.js';

/** An argument of a call as it is in the syntax tree. */
export interface ArgumentNode {
  label: string | null;
  node: Node;
  /** Whether it is inside another argument, with which it is walked. */
  within?: boolean;
}

/** What a node of a syntax tree means, the same for every language. */
export type Shape =
  | { is: 'string'; value: string | null; start: number; end: number }
  | {
      is: 'call';
      name: string;
      args: ArgumentNode[];
      rest: Node[];
      /** Where it begins, when that is before the node. */
      start?: number;
      /** Its return type, if that can be determined. */
      makes?: string;
    }
  | { is: 'assign'; name: string; value: Node }
  | { is: 'type'; name: string; bases: string[] }
  /** A function; `gives` for a computed property, which stands for what it gives back. */
  | { is: 'method'; name: string; body: Node | null; gives?: true }
  | { is: 'lambda' }
  | {
      is: 'constant';
      name: string;
      type: string | null;
      value: Node | null;
      /** Whether what is under the name already is another value that it may have. */
      more?: boolean;
    }
  | { is: 'parameter'; name: string; type: string | null }
  | {
      is: 'branch';
      conditions: Node[];
      /** The condition as a text, where it is more than the nodes say. */
      text?: string;
      then: Node[];
      otherwise: Node[];
      /** Where it is an expression that chooses between values: from where to where it is. */
      choice?: { start: number; end: number };
    }
  | {
      is: 'cases';
      /** The node itself, each of its cases a branch of its own. */
      cases: Node[];
      /** Under what the cases stand, `default` for all others. */
      of: string[];
      /** The expression that comes to one of them; undefined where they only stand side by side. */
      choice: { start: number; end: number } | undefined;
    }
  /** What only wraps another expression: brackets, `await`, a change of type. */
  | { is: 'same'; node: Node }
  /** A value that goes by a name, though it is written otherwise. */
  | { is: 'name'; name: string }
  | { is: 'guard'; conditions: Node[]; body: Node[] };

/** How one language is read: what its nodes mean, and which statements leave the block they are in. */
export interface CodeLanguage {
  grammar: GrammarName;
  describe(node: Node): Shape | null;
  exits: ReadonlySet<string>;
  /** Every argument has a label, which is a part of the name of what is called. */
  labelsAreNames?: true;
  /** The texts that a compiler may see of a file, all as long as the file, where a preprocessor comes first. */
  views?(text: string): string[];
  /** Where a view is held that is made here, or undefined when the node does not say. */
  heldAt?(node: Node): HeldAt | undefined;
  /**
   * What names without a dot belong to in a part of a call: of `slot.apply { }` it is `slot`; undefined where nothing
   * changes.
   */
  receiverIn?(part: Node, call: { name: string; args: readonly ArgumentNode[] }): string | undefined;
  /** Names that a condition or a closure gives to what has a name already: `if let now = page`, `page is { } now`. */
  aliasesIn?(node: Node): readonly (readonly [name: string, other: string])[];
  /** The keys and values of a table, where a node is one: `mapOf("footer" to ID)`. */
  pairs?: (node: Node) => readonly (readonly [key: Node, value: Node])[];
  /** Nodes that go on with the expression of the node before them, in grammars that lay such parts side by side. */
  continues?: ReadonlySet<string>;
}

/** What nodes of some types mean. Types that are not listed mean nothing. */
export function describedBy(
  entries: readonly (readonly [types: readonly string[], describe: (node: Node) => Shape | null])[],
): (node: Node) => Shape | null {
  const table = new Map(
    entries.flatMap(([types, describe]) => types.map((type) => [type, describe] as const)),
  );
  return (node) => table.get(node.type)?.(node) ?? null;
}

/** The keys and values of nodes that stand one after the other. */
export function pairwise(nodes: readonly Node[]): (readonly [Node, Node])[] {
  return nodes.flatMap((node, at) => {
    const next = nodes[at + 1];
    return at % 2 === 0 && next ? [[node, next] as const] : [];
  });
}

/** The named children of a node, in order. */
export function named(node: Node): readonly Node[] {
  const { namedChildren } = node;
  return isWhole(namedChildren) ? namedChildren : namedChildren.filter((child) => child !== null);
}

function isWhole(nodes: readonly (Node | null)[]): nodes is readonly Node[] {
  return !nodes.includes(null);
}

/** The first named child of one of the types. */
export function childOf(node: Node, ...types: string[]): Node | undefined {
  return named(node).find((child) => types.includes(child.type));
}

/**
 * A dotted name from source text: `this.ad?.show` is `ad.show`; what is no plain name gives its last part after `?`.
 */
export function dottedName(text: string): string {
  const plain = text
    .slice(0, 300)
    .replace(/\s+/g, '')
    .replace(/!!|[?!]/g, '')
    .replace(/^(this|self)(@\w+)?\./, '')
    .replace(/^@/, '');
  if (/^[A-Za-z_$][\w$]*(\.[A-Za-z_$][\w$]*)*$/.test(plain)) return plain;
  const last = /\.([A-Za-z_$][\w$]*)$/.exec(plain)?.[1];
  return last === undefined ? '' : `?.${last}`;
}

/** A string's contents, or null when something is put into it. */
export function stringShape(node: Node, contents: readonly string[], open: number, close = open): Shape {
  const inner = named(node);
  const plain = inner.every(({ type }) => contents.includes(type) || /escape/.test(type));
  const start = node.startIndex + open;
  const end = Math.max(start, node.endIndex - close);
  return { is: 'string', value: plain ? node.text.slice(open, node.text.length - close) : null, start, end };
}
