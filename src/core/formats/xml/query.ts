import type { XmlAttribute, XmlElement } from './model.js';

/** The child elements, in order; of one name when it is given. */
export function elements(parent: XmlElement, name?: string): XmlElement[] {
  const found: XmlElement[] = [];
  for (const child of parent.children) {
    if (child.type === 'element' && (name === undefined || child.name === name)) found.push(child);
  }
  return found;
}

/** Every element below, the given one first, in document order. */
export function* descendants(element: XmlElement): Generator<XmlElement> {
  const waiting = [element];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    yield next;
    waiting.push(...elements(next).reverse());
  }
}

export function attribute(element: XmlElement, name: string): XmlAttribute | undefined {
  return element.attributes.find((candidate) => candidate.name === name);
}

/** The prefix that the document binds to a namespace on its root element; the usual one when it binds none. */
export function prefixOf(root: XmlElement, namespace: string, usual: string): string {
  const bound = root.attributes.find(({ name, value }) => name.startsWith('xmlns:') && value === namespace);
  return bound ? bound.name.slice('xmlns:'.length) : usual;
}

/** The text directly inside an element, comments left out. */
export function textOf(element: XmlElement): string {
  return element.children.map((child) => (child.type === 'text' ? child.value : '')).join('');
}
