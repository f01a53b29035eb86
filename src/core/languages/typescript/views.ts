import type { Node } from '../../syntax/grammars.js';
import { childOf, named } from '../../syntax/shape.js';
import type { HeldAt } from '../../words/names.js';

/** Components whose contents scroll (reactnative.dev, "ScrollView", "FlatList", "SectionList", "VirtualizedList"). */
const scrolling = /^(?:Animated\.)?(?:ScrollView|FlatList|SectionList|VirtualizedList)$/;

/** More children than these are not looked through. */
const maxChildren = 60;

const isElement = ({ type }: Node) => type === 'jsx_element' || type === 'jsx_self_closing_element';

/** The part of an element that holds its name and attributes. */
function opening(node: Node): Node {
  return node.type === 'jsx_element' ? (childOf(node, 'jsx_opening_element') ?? node) : node;
}

function attributeOf(element: Node, name: string): string {
  const found = named(opening(element)).find(
    (child) => child.type === 'jsx_attribute' && child.namedChild(0)?.text === name,
  );
  return found?.text ?? '';
}

/** Where a component is held: by its own style and by what is around it, as far as the function that draws it. */
export function componentHeldAt(node: Node): HeldAt | undefined {
  const own = node.type === 'jsx_opening_element' ? node.parent : node;
  let edge: HeldAt | undefined;
  for (let at = own; at && at.type !== 'function_declaration'; at = at.parent) {
    if (!isElement(at)) continue;
    if (at !== own && scrolling.test(opening(at).namedChild(0)?.text ?? '')) return 'scrolling-view';
    edge ??= byStyle(attributeOf(at, 'style')) ?? siblingOfFiller(at);
  }
  return edge;
}

function byStyle(style: string): HeldAt | undefined {
  if (!/\bposition:\s*['"]absolute['"]/.test(style)) return undefined;
  const [bottom, top] = [/\bbottom:/.test(style), /\btop:/.test(style)];
  return bottom && !top ? 'bottom-edge' : top && !bottom ? 'top-edge' : 'no-edge';
}

/** A list, and what has `flex: 1`, takes the room that is left: what is after it is held at the bottom. */
function siblingOfFiller(element: Node): HeldAt | undefined {
  const { parent } = element;
  if (parent?.type !== 'jsx_element') return undefined;
  if (/\bflexDirection:\s*['"]row/.test(attributeOf(parent, 'style'))) return undefined;
  const children = named(parent).filter(isElement).slice(0, maxChildren);
  const fills = children.find(
    (child) =>
      child.startIndex !== element.startIndex &&
      (scrolling.test(opening(child).namedChild(0)?.text ?? '') ||
        /\bflex:\s*1\b/.test(attributeOf(child, 'style'))),
  );
  if (!fills) return undefined;
  return element.startIndex > fills.startIndex ? 'bottom-edge' : 'top-edge';
}
