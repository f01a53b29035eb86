import type { VastVersion } from '../versions.js';

/** What the text of an element or the value of an attribute has to be. */
export type ContentKind =
  'text' | 'url' | 'time' | 'offset' | 'integer' | 'number' | 'boolean' | 'currency' | readonly string[];

/** An attribute, from which version on, and whether it has to be there. */
export interface AttributeRule {
  is: ContentKind;
  required?: boolean;
  since?: VastVersion;
}

/** A child: the shape it has, how often it comes, and from which version on. */
export interface ChildRule {
  shape: string;
  min: 0 | 1;
  max: 1 | typeof Infinity;
  since?: VastVersion;
}

/** The shape of an element: its attributes, and either its children or its text. */
export interface ElementRule {
  /** Where VAST 4.2 describes it, as far as it has a section of its own. */
  section?: string | undefined;
  attributes?: Readonly<Record<string, AttributeRule>>;
  children?: Readonly<Record<string, ChildRule>>;
  /** At least one of these children has to be there. */
  oneOf?: readonly string[];
  /** What its text is; `any` takes elements of others. */
  content?: ContentKind | 'any';
}

export type Shapes = Readonly<Record<string, ElementRule>>;

type Child = (shape: string, since?: VastVersion) => ChildRule;
const child =
  (min: 0 | 1, max: 1 | typeof Infinity): Child =>
  (shape, since) => ({ shape, min, max, ...(since === undefined ? {} : { since }) });

/** At most one, exactly one, any number, at least one. */
export const may = child(0, 1);
export const must = child(1, 1);
export const any = child(0, Infinity);
export const some = child(1, Infinity);

export const size = {
  width: { is: 'integer', required: true },
  height: { is: 'integer', required: true },
} as const;
export const text = (section?: string): ElementRule => ({ section, content: 'text' });
export const url = (section?: string): ElementRule => ({
  section,
  content: 'url',
  attributes: { id: { is: 'text' } },
});
export const resources = {
  StaticResource: any('StaticResource'),
  IFrameResource: any('Url'),
  HTMLResource: any('Html'),
} as const;
