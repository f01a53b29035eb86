import type { Directive } from './needs.js';

/** One thing that the merger of manifests is told about an element. */
export interface Told {
  by: 'node' | 'replace';
  /** What becomes of the element, or the attribute that is kept. */
  value: string;
}

/** The parts of a directive, one by one. */
export function toldBy({ node, replace }: Directive): Told[] {
  return [
    ...(node === undefined ? [] : [{ by: 'node' as const, value: node }]),
    ...replace.map((value) => ({ by: 'replace' as const, value })),
  ];
}

/** A part of a directive as people write it. */
export const toldText = ({ by, value }: Told): string => `tools:${by}="${value}"`;

/** The element that a directive is about, for people and as the name of its facts. */
export const aboutText = ({ element, name }: Pick<Directive, 'element' | 'name'>): string =>
  name === undefined ? element : `${element} ${name}`;
