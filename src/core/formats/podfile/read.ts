import type { Node, Syntax } from '../../syntax/grammars.js';
import type { ReadProblem, Span } from '../../text/problem.js';

/** A `pod` line of a Podfile. */
export interface Pod extends Span {
  name: string;
  /** The requirement as written: `~> 6.2`, several joined by commas; empty for none. */
  version: string;
  /** The target blocks around it, the outermost first. */
  targets: string[];
  /** The conditions around it, in words of the file; null when it is always taken. */
  condition: string | null;
  /** The build configurations that it is limited to; null for all. */
  configurations: string[] | null;
  /** The method that it is in, when it is taken by a call of that method. */
  method: string | null;
}

/** A `target` or `abstract_target` block, from its first line to the line of its `end`. */
export interface PodTarget extends Span {
  name: string;
  abstract: boolean;
  /** The target around it; null at the top. */
  parent: string | null;
  /** What it takes over of the target around it. */
  inherit: 'complete' | 'search_paths' | 'none';
}

export interface Podfile {
  pods: Pod[];
  targets: PodTarget[];
  problems: ReadProblem[];
}

interface Around {
  targets: readonly string[];
  condition: string | null;
  method: string | null;
}

const maxDepth = 60;
const maxSteps = 50_000;
const conditionals = new Set(['if', 'unless', 'case', 'if_modifier', 'unless_modifier', 'elsif', 'while']);

/** Reads a Podfile by the syntax tree of Ruby: targets and their nesting, pods with what surrounds them. */
export function readPodfile(text: string, syntax: Syntax): Podfile {
  const found = syntax.visit('ruby', text, (root) => {
    const reader = new PodfileReader(text, root);
    reader.walk(root, { targets: [], condition: null, method: null }, 0);
    return reader;
  });
  if (!found) {
    const message = 'Not read: it is too long, or too costly to parse.';
    return { pods: [], targets: [], problems: [{ kind: 'not-read', message, start: 0, end: 0 }] };
  }
  return { pods: found.pods, targets: found.targets, problems: [] };
}

/** The pods that a target is linked with: its own, and those it takes over from the targets around it. */
export function podsFor({ pods, targets }: Podfile, name: string): Pod[] {
  const chain = new Set<string | null>([name]);
  for (let at = targets.find((target) => target.name === name); at;) {
    if (at.inherit !== 'complete') return pods.filter((pod) => (pod.targets.at(-1) ?? null) === name);
    chain.add(at.parent);
    const { parent } = at;
    at = parent === null ? undefined : targets.find((target) => target.name === parent);
  }
  chain.add(null);
  return pods.filter((pod) => chain.has(pod.targets.at(-1) ?? null));
}

class PodfileReader {
  readonly pods: Pod[] = [];
  readonly targets: PodTarget[] = [];
  private readonly methods = new Map<string, Node>();
  private steps = 0;

  constructor(
    private readonly text: string,
    root: Node,
  ) {
    for (const node of root.descendantsOfType('method')) {
      const name = node?.childForFieldName('name')?.text;
      if (node && name !== undefined) this.methods.set(name, node);
    }
  }

  walk(node: Node, around: Around, depth: number): void {
    if (depth > maxDepth || ++this.steps > maxSteps) return;
    if (node.type === 'method') return;
    if (conditionals.has(node.type)) {
      const condition = (node.childForFieldName('condition') ?? node.childForFieldName('value'))?.text ?? '';
      const written = `${node.type.replace('_modifier', '')} ${condition}`.replace(/\s+/g, ' ').trim();
      const inner = { ...around, condition: around.condition ? `${around.condition}, ${written}` : written };
      this.children(node, inner, depth);
      return;
    }
    if (node.type === 'identifier') this.enter(node.text, around, depth);
    if (node.type !== 'call') {
      this.children(node, around, depth);
      return;
    }
    const name = node.childForFieldName('method')?.text ?? '';
    const args = node.childForFieldName('arguments');
    if (name === 'pod') this.pod(node, args, around);
    else if (name === 'target' || name === 'abstract_target') this.target(node, name, args, around, depth);
    else {
      this.enter(name, around, depth);
      this.children(node, around, depth);
    }
  }

  private children(node: Node, around: Around, depth: number): void {
    for (const child of node.namedChildren) if (child) this.walk(child, around, depth + 1);
  }

  /** A call of a method of the Podfile takes what is in it. */
  private enter(name: string, around: Around, depth: number): void {
    const method = this.methods.get(name);
    if (method && around.method !== name)
      this.children(method, { ...around, method: name }, Math.max(depth, maxDepth - 20));
  }

  private pod(node: Node, args: Node | null, around: Around): void {
    const given = (args?.namedChildren ?? []).filter((item): item is Node => item !== null);
    const [name, ...rest] = given;
    const written = name && stringOf(name);
    if (written === undefined) return;
    const pairs = new Map(
      rest
        .filter(({ type }) => type === 'pair')
        .map((pair) => [symbolOf(pair.childForFieldName('key')), pair.childForFieldName('value')]),
    );
    const only = pairs.get('configurations') ?? pairs.get('configuration');
    const source = ['git', 'path', 'podspec'].find((key) => pairs.has(key));
    this.pods.push({
      name: written,
      version: rest.flatMap((item) => stringOf(item) ?? []).join(', ') || (source ? `from ${source}` : ''),
      targets: [...around.targets],
      condition: around.condition,
      configurations: only ? namesIn(only) : null,
      method: around.method,
      start: node.startIndex,
      end: node.endIndex,
    });
  }

  private target(node: Node, kind: string, args: Node | null, around: Around, depth: number): void {
    const first = args?.namedChild(0);
    const name = first ? (stringOf(first) ?? symbolOf(first)) : undefined;
    if (name === undefined) return;
    const block = node.childForFieldName('block');
    const close = block ? this.text.lastIndexOf('\n', block.endIndex - 1) + 1 : node.endIndex;
    const inherit = /\binherit!\s*\(?\s*:(complete|search_paths|none)/.exec(ownText(block))?.[1];
    this.targets.push({
      name,
      abstract: kind === 'abstract_target',
      parent: around.targets.at(-1) ?? null,
      inherit: (inherit as PodTarget['inherit'] | undefined) ?? 'complete',
      start: this.text.lastIndexOf('\n', node.startIndex - 1) + 1,
      end: Math.max(close, node.startIndex),
    });
    if (block) this.children(block, { ...around, targets: [...around.targets, name] }, depth);
  }
}

/** The statements of a block that belong to it alone, not to a target inside it. */
function ownText(block: Node | null): string {
  const body = block?.childForFieldName('body') ?? block;
  return (body?.namedChildren ?? [])
    .flatMap((child) => (child?.type === 'call' && !child.childForFieldName('block') ? [child.text] : []))
    .join('\n');
}

function stringOf(node: Node): string | undefined {
  if (node.type !== 'string') return undefined;
  const contents = node.namedChildren.filter((child): child is Node => child !== null);
  return contents.every(({ type }) => type === 'string_content')
    ? contents.map(({ text }) => text).join('')
    : undefined;
}

function symbolOf(node: Node | null | undefined): string {
  return (node?.text ?? '').replace(/^:|:$/g, '').replace(/^(['"])(.*)\1$/, '$2');
}

function namesIn(node: Node): string[] {
  if (node.type === 'array') return node.namedChildren.flatMap((child) => (child ? namesIn(child) : []));
  return [stringOf(node) ?? symbolOf(node)];
}
