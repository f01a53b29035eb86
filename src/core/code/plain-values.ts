import type { Node } from '../syntax/grammars.js';
import { dottedName, type CodeLanguage, type Shape } from '../syntax/shape.js';
import type { PlainValue } from './source-reading.js';

/** The plain values of the expressions of one file. */
export class PlainValues {
  private readonly shapes = new Map<Node, Shape | null>();

  constructor(private readonly language: CodeLanguage) {}

  /** What a node means. Several callers ask for the same node, so the answer is kept. */
  describe(node: Node): Shape | null {
    let shape = this.shapes.get(node);
    if (shape === undefined) {
      shape = this.language.describe(node);
      this.shapes.set(node, shape);
    }
    return shape;
  }

  /** The plain values that an expression may have: one, or one per branch. */
  of(node: Node): PlainValue[] {
    const run = this.run(node);
    const last = run.at(-1) ?? node;
    const span = { start: node.startIndex, end: last.endIndex };
    if (last !== node) {
      const called = run.some((part) => this.describe(part)?.is === 'call');
      const whole = node.parent?.text.slice(
        span.start - node.parent.startIndex,
        span.end - node.parent.startIndex,
      );
      const path = called ? '' : dottedName(whole ?? '');
      return [
        path === '' || path.startsWith('?') ? { is: 'other', ...span } : { is: 'name', name: path, ...span },
      ];
    }
    const shape = this.describe(node);
    if (shape?.is === 'string')
      return shape.value === null
        ? [{ is: 'other', ...span }]
        : [{ is: 'text', value: shape.value, ...span }];
    if (shape?.is === 'same') return this.of(shape.node).map((value) => ({ ...value, ...span }));
    if (shape?.is === 'name') return [{ is: 'name', name: shape.name, ...span }];
    if (shape?.is === 'cases') return shape.cases.flatMap((part) => this.of(part));
    if (shape?.is === 'branch')
      return [...shape.then, ...shape.otherwise].flatMap((part) =>
        this.language.continues?.has(part.type) ? [] : this.of(unwrapped(part)),
      );
    if (shape?.is === 'call') {
      const [first] = shape.args;
      const inner =
        first && /(^|\.)(getString|getText|stringResource)$/.test(shape.name)
          ? dottedName(first.node.text)
          : '';
      return [
        inner.startsWith('R.string.') ? { is: 'name', name: inner, ...span } : { is: 'other', ...span },
      ];
    }
    const name = dottedName(node.text);
    const plain = name !== '' && !name.startsWith('?') && !shape;
    return [plain ? { is: 'name', name, ...span } : { is: 'other', ...span }];
  }

  /** A node with those beside it that go on with its expression. */
  run(node: Node): Node[] {
    const nodes = [node];
    const { continues } = this.language;
    if (!continues) return nodes;
    for (let next = node.nextNamedSibling; next && continues.has(next.type); next = next.nextNamedSibling)
      nodes.push(next);
    return nodes;
  }
}

function unwrapped(node: Node): Node {
  let inner = node;
  for (
    let depth = 0;
    depth < 6 && inner.namedChildCount === 1 && /body|block|statements/.test(inner.type);
    depth++
  )
    inner = inner.namedChild(0) ?? inner;
  return inner;
}
