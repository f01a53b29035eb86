import { valueAt } from '../../text/own-values.js';
import type { Node } from '../../syntax/grammars.js';
import { childOf, named, type Shape } from '../../syntax/shape.js';
import type { HeldAt } from '../../words/names.js';

/** Widgets whose contents scroll (api.flutter.dev, "Scrolling widgets"). */
const scrolling =
  /^(?:ListView|GridView|PageView|ReorderableListView|SingleChildScrollView|CustomScrollView|NestedScrollView|ListWheelScrollView)(?:\.\w+)?$/;

/** Slots of a page that do not scroll with its body (api.flutter.dev, "Scaffold class"). */
const slots: Readonly<Record<string, HeldAt>> = {
  bottomNavigationBar: 'bottom-edge',
  bottomSheet: 'bottom-edge',
  persistentFooterButtons: 'bottom-edge',
  appBar: 'top-edge',
};

/** More children than these are not looked through. */
const maxChildren = 60;

/** Where a widget is anchored: found through its parents, up to the page or the function that builds it. */
export function widgetHeldAt(node: Node, describe: (node: Node) => Shape | null): HeldAt | undefined {
  let edge: HeldAt | undefined;
  let label: string | undefined;
  let listed: Node | undefined;
  for (let at = node; at.parent; at = at.parent) {
    const { parent } = at;
    if (parent.type === 'class_definition') return edge;
    if (parent.type === 'named_argument') label = childOf(parent, 'label')?.text.replace(/:$/, '').trim();
    else if (parent.type === 'list_literal') listed = at;
    const shape = /^(selector|const_object_expression|new_expression)$/.test(parent.type)
      ? describe(parent)
      : null;
    if (shape?.is !== 'call') continue;
    if (scrolling.test(shape.name)) return 'scrolling-view';
    if (shape.name === 'Scaffold' && label !== undefined) return valueAt(slots, label) ?? edge ?? 'no-edge';
    edge ??= edgeOf(shape, listed);
    [label, listed] = [undefined, undefined];
  }
  return edge;
}

/** The edge at which a widget places its child. */
function edgeOf({ name, args }: Shape & { is: 'call' }, listed: Node | undefined): HeldAt | undefined {
  const given = (label: string) => args.find((one) => one.label === label)?.node;
  if (name === 'Align') {
    const written = given('alignment')?.parent?.text ?? '';
    return /\.bottom/.test(written) ? 'bottom-edge' : /\.top/.test(written) ? 'top-edge' : undefined;
  }
  if (name === 'Positioned' || name === 'Positioned.fill')
    return given('bottom') && !given('top') ? 'bottom-edge' : given('top') ? 'top-edge' : undefined;
  if (name !== 'Column' || !listed?.parent) return undefined;
  // A column reaches from edge to edge where something in it takes the room that is left.
  const children = named(listed.parent).slice(0, maxChildren);
  const fills = children.findIndex((child) => {
    const made = child.type === 'identifier' ? child : childOf(child, 'type_identifier');
    return made !== undefined && /^(Expanded|Flexible|Spacer)$/.test(made.text);
  });
  const own = children.findIndex(({ startIndex }) => startIndex === listed.startIndex);
  if (fills < 0 || own < 0) return undefined;
  return own > fills ? 'bottom-edge' : 'top-edge';
}
