import type { Node } from '../../syntax/grammars.js';
import { childOf, named, pairwise, type Shape } from '../../syntax/shape.js';

/** `HeronBanner?` and `Task<HeronBanner>` hold a `HeronBanner`. */
export function plainType(text: string): string {
  const plain = text.replace(/\s+/g, '').replace(/[?]|\[\]$/g, '');
  const held = /^(?:System\.Threading\.Tasks\.)?(?:Task|ValueTask|Lazy)<(.*)>$/.exec(plain)?.[1] ?? plain;
  return held.replace(/<.*$/, '');
}

/** A property counts as its return value, if it is a single expression. */
export function property(node: Node): Shape | null {
  const name = node.childForFieldName('name')?.text ?? '';
  const value = node.childForFieldName('value');
  if (!value) return null;
  const type = node.childForFieldName('type');
  const given = value.type === 'arrow_expression_clause' ? named(value)[0] : value;
  return { is: 'constant', name, type: type ? plainType(type.text) : null, value: given ?? null };
}

/** The `get` of a property. */
export function accessor(node: Node): Shape | null {
  const property = node.parent?.parent;
  const name =
    property?.type === 'property_declaration' ? property.childForFieldName('name')?.text : undefined;
  if (name === undefined || !node.children.some((child) => child?.text === 'get')) return null;
  const body = childOf(node, 'block', 'arrow_expression_clause') ?? null;
  return { is: 'method', name, body, gives: true };
}

/** `["footer"] = ID` and `{ "footer", ID }`. */
export function pairs(node: Node): readonly (readonly [Node, Node])[] {
  if (node.type === 'assignment_expression') {
    const [left, right] = [node.childForFieldName('left'), node.childForFieldName('right')];
    const key = left && /^\[[^\]]*\]$/.test(left.text) ? innermost(left) : undefined;
    return key && right ? [[key, right]] : [];
  }
  const parts = named(node);
  const inTable = node.type === 'initializer_expression' && node.parent?.type === 'initializer_expression';
  return inTable && parts.length === 2 ? pairwise(parts) : [];
}

function innermost(node: Node): Node {
  let inner = node;
  while (inner.namedChildCount === 1 && /element|argument|bracket/.test(inner.type))
    inner = inner.namedChild(0) ?? inner;
  return inner;
}
