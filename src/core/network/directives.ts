import type { Directive } from './needs.js';

/** A single merge directive: one `tools:node` value, or one attribute of `tools:replace`. */
export interface Told {
  by: 'node' | 'replace';
  /** The value of `tools:node`, or the attribute to replace. */
  value: string;
}

/** Splits a directive of a profile into single ones. */
export function toldBy({ node, replace }: Directive): Told[] {
  return [
    ...(node === undefined ? [] : [{ by: 'node' as const, value: node }]),
    ...replace.map((value) => ({ by: 'replace' as const, value })),
  ];
}

/** A single directive as it is written in a manifest. */
export const toldText = ({ by, value }: Told): string => `tools:${by}="${value}"`;

/** Names the element that a directive applies to, for messages and facts. */
export const aboutText = ({ element, name }: Pick<Directive, 'element' | 'name'>): string =>
  name === undefined ? element : `${element} ${name}`;
