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
  /** From this version on it has to be there; before it may be left out. */
  requiredSince?: VastVersion;
}

/** The shape of an element: its attributes, and either its children or its text. */
export interface ElementRule {
  /** Where VAST 4.2 describes it. */
  section: string;
  attributes?: Readonly<Record<string, AttributeRule>>;
  children?: Readonly<Record<string, ChildRule>>;
  /** At least one of these children has to be there. */
  oneOf?: readonly string[];
  /** What its text is; `any` takes elements of others. */
  content?: ContentKind | 'any';
}

export type Shapes = Readonly<Record<string, ElementRule>>;

export const may = (shape: string, since?: VastVersion): ChildRule => ({
  shape,
  min: 0,
  max: 1,
  ...from(since),
});
export const must = (shape: string, since?: VastVersion): ChildRule => ({
  shape,
  min: 1,
  max: 1,
  ...from(since),
});
export const any = (shape: string, since?: VastVersion): ChildRule => ({
  shape,
  min: 0,
  max: Infinity,
  ...from(since),
});
export const some = (shape: string, since?: VastVersion): ChildRule => ({
  shape,
  min: 1,
  max: Infinity,
  ...from(since),
});

function from(since: VastVersion | undefined): { since?: VastVersion } {
  return since === undefined ? {} : { since };
}

export const size = {
  width: { is: 'integer', required: true },
  height: { is: 'integer', required: true },
} as const;
export const text = (section: string): ElementRule => ({ section, content: 'text' });
export const url = (section: string): ElementRule => ({
  section,
  content: 'url',
  attributes: { id: { is: 'text' } },
});
export const resources = {
  StaticResource: any('StaticResource'),
  IFrameResource: any('Url'),
  HTMLResource: any('Html'),
} as const;
