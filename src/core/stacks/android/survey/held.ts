import type { HeldAt } from '../../../words/names.js';
import { attribute } from '../../../formats/xml/query.js';
import type { XmlElement } from '../../../formats/xml/model.js';
import { androidNamespace, appNamespace } from '../../common/manifest/namespaces.js';

/** The namespace that a prefix is bound to, at the element or above it. */
export function boundTo(element: XmlElement, prefix: string): string | undefined {
  for (let at: XmlElement | null | undefined = element; at; at = at.parent) {
    const found = attribute(at, `xmlns:${prefix}`)?.value;
    if (found !== undefined) return found;
  }
  return undefined;
}

/** Where a view is held. */
export function anchorOf(element: XmlElement): HeldAt {
  for (let at = element.parent; at; at = at.parent)
    if (/(ScrollView|RecyclerView|ListView|ViewPager2?)$/.test(at.name)) return 'scrolling-view';
  const { parent } = element;
  if (!parent) return 'whole-layout';
  const edge = edgeOf(element);
  if (edge) return edge;
  if (/(^|\.)LinearLayout(Compat)?$/.test(parent.name)) {
    const siblings = parent.children.filter((child) => child.type === 'element');
    if (siblings.at(-1) === element) return 'bottom-edge';
    if (siblings[0] === element) return 'top-edge';
  }
  return 'no-edge';
}

/** The edge of its parent that a view is pinned to by its attributes. */
function edgeOf(element: XmlElement): 'top-edge' | 'bottom-edge' | undefined {
  const read = (local: string) => {
    for (const item of element.attributes) {
      const [prefix = '', name] = item.name.split(':');
      const namespace = boundTo(element, prefix);
      if (name === local && (namespace === androidNamespace || namespace === appNamespace)) return item.value;
    }
    return undefined;
  };
  const gravity = (read('layout_gravity') ?? '').split('|');
  for (const [edge, aligned, constraint] of [
    ['bottom', 'layout_alignParentBottom', 'layout_constraintBottom_toBottomOf'],
    ['top', 'layout_alignParentTop', 'layout_constraintTop_toTopOf'],
  ] as const) {
    if (gravity.includes(edge)) return `${edge}-edge`;
    if (read(aligned) === 'true' || read(constraint) === 'parent') return `${edge}-edge`;
  }
  return undefined;
}

const navigation =
  /(^|\.)(BottomNavigationView|NavigationBarView|BottomAppBar|TabLayout|Toolbar|MaterialToolbar)$/;

/** The navigation that a view covers: beside it in one parent, pinned to the same edge, where views lie over each other. */
export function coveredBy(element: XmlElement): string | undefined {
  const edge = edgeOf(element);
  const { parent } = element;
  if (!edge || !parent || /(^|\.)LinearLayout(Compat)?$/.test(parent.name)) return undefined;
  return parent.children
    .filter((child): child is XmlElement => child.type === 'element' && child !== element)
    .find((child) => navigation.test(child.name) && edgeOf(child) === edge)?.name;
}
