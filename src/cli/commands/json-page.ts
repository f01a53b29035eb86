import * as z from 'zod';
import { published } from '../../api/schemas.js';
import { valueAt } from '../../core/text/own-values.js';

/** What changed in shapes that carry a version. */
const changes = [
  '## Versions',
  '',
  'A survey carries its `version`. Version 2 replaced version 1, which had none:',
  '',
  '- Facts are a union by `kind`; each kind has its own fields. They replace the single text field of version 1: `carrier`, `scope`, `lock`, `state`, `anchor`, `action`, `format`, `type`, `list`, `file` and `folder`.',
  '- `effective` is `true`, or the reason why the build does not use what was found.',
  '- A problem of a file has a `kind`: `syntax`, `conflict` (lines that were not merged), `not-text` or `not-read`.',
  '- An unresolved value has a `cause` where the build cannot have it either: it refers to something undefined, or nothing is written.',
  '- A check and a wiring have `compared`: whether the tree was compared with a title, or why not.',
  '- `code.flow` is an object instead of a text.',
  '- An edition has `dependencies`: where a dependency of it is declared. A `cause` may be `unread-script`: a script is not read that may say anything about the build.',
  '- There are facts of the kinds `app-label`, `base-configuration`, `forced-version` and `narrow-dependency`; `placement-settings` have `fields` and `format`; a unit ID may be carried by a `document` or a `property-list`.',
  '- There are facts of the kinds `desugaring`, `java-level`, `merge-directive`, `meta-data`, `shrinker-rule` and `shrinking`; a `plist-key` has the `content` of an array or a dictionary; a `call` says what it `follows` and whether it is `awaited`, and may ask for `consent` or `identify` a placement.',
];

/** The page of every JSON shape, with its fields. `made` says that the page is made from the code. */
export function jsonPage(made: string): string {
  const lines = [
    '# JSON shapes',
    '',
    made,
    '',
    'Every command prints one JSON document with `--json`. The shapes below are taken from the schemas that the service itself checks with; the full JSON Schemas are in `docs/schemas/`.',
    '',
    ...changes,
    '',
  ];
  for (const [name, { type, io, from }] of Object.entries(published)) {
    const schema = z.toJSONSchema(type, { io, unrepresentable: 'any' });
    lines.push(
      `## ${name}`,
      '',
      `${from}. ${text(schema.description)}`.trim(),
      '',
      '| field | type | |',
      '| --- | --- | --- |',
      ...fieldRows(schema, ''),
      '',
    );
  }
  return `${lines.join('\n').trimEnd()}\n`;
}

type JsonSchema = Record<string, unknown>;

function text(value: unknown): string {
  return typeof value === 'string' ? value : '';
}

/** A row per field; objects and lists of objects are opened to four levels. */
function fieldRows(schema: JsonSchema, path: string, depth = 0): string[] {
  // A list or a map at the top is opened as a field of no name would be.
  if (!schema.properties && depth === 0) {
    const { inner } = typeOf(schema);
    return inner ? fieldRows(inner.schema, `${inner.suffix.replace(/^\./, '')}.`, 1) : [];
  }
  if (schema.oneOf) return kindRows(schema.oneOf as JsonSchema[], path, depth);
  const properties = (schema.properties ?? {}) as Record<string, JsonSchema>;
  const required = new Set((schema.required ?? []) as string[]);
  return Object.entries(properties).flatMap(([key, field]) => {
    const { type, inner } = typeOf(field);
    const name = `${path}${key}${required.has(key) ? '' : '?'}`;
    const row = `| \`${name}\` | ${type.replace(/\|/g, '\\|')} | ${text(field.description).replace(/\|/g, '\\|')} |`;
    return inner && depth < 4
      ? [row, ...fieldRows(inner.schema, `${path}${key}${inner.suffix}.`, depth + 1)]
      : [row];
  });
}

/** Rows for a discriminated union: the fields that all members share, then the fields of each member. */
function kindRows(kinds: readonly JsonSchema[], path: string, depth: number): string[] {
  const fieldsOf = ({ properties }: JsonSchema) => Object.entries(properties as Record<string, JsonSchema>);
  const [first = {}, ...others] = kinds;
  const isShared = (key: string) => others.every(({ properties }) => key in (properties as JsonSchema));
  const constants = (key: string) =>
    kinds.map((kind) => valueAt(kind.properties as Record<string, JsonSchema>, key)?.const);
  const shared = fieldsOf(first).flatMap(([key, field]) =>
    isShared(key) ? [[key, 'const' in field ? { enum: constants(key) } : field] as const] : [],
  );
  const common = { ...first, properties: Object.fromEntries(shared) };
  const [discriminator = ''] = shared.flatMap(([key, field]) => ('enum' in field ? [key] : []));
  const own = kinds.flatMap((kind, at) =>
    fieldsOf(kind).flatMap(([key, field]) => {
      if (isShared(key)) return [];
      const when = `When \`${discriminator}\` is ${text(constants(discriminator)[at])}.`;
      const description = `${when} ${text(field.description)}`.trim();
      return fieldRows({ ...kind, properties: { [key]: { ...field, description } } }, path, depth);
    }),
  );
  return [...fieldRows(common, path, depth), ...own];
}

function typeOf(field: JsonSchema): { type: string; inner?: { schema: JsonSchema; suffix: string } } {
  if (field.oneOf) return { type: 'object', inner: { schema: field, suffix: '' } };
  const union = field.anyOf as JsonSchema[] | undefined;
  if (union) {
    const parts = union.map(typeOf);
    const inner = parts.find((part) => part.inner)?.inner;
    return { type: parts.map(({ type }) => type).join(' | '), ...(inner ? { inner } : {}) };
  }
  if (Array.isArray(field.type)) return { type: field.type.map(text).join(' | ') };
  if (Array.isArray(field.enum))
    return { type: field.enum.map((value) => JSON.stringify(value)).join(' | ') };
  if ('const' in field) return { type: JSON.stringify(field.const) };
  if (field.type === 'array') {
    const items = (field.items ?? {}) as JsonSchema;
    const { type, inner } = typeOf(items);
    return {
      type: `${type}[]`,
      ...(inner ? { inner: { schema: inner.schema, suffix: `[]${inner.suffix}` } } : {}),
    };
  }
  if (field.type === 'object' && field.properties)
    return { type: 'object', inner: { schema: field, suffix: '' } };
  if (field.type === 'object' && field.additionalProperties) {
    const { type, inner } = typeOf(field.additionalProperties as JsonSchema);
    return {
      type: `map of ${type}`,
      ...(inner ? { inner: { schema: inner.schema, suffix: `.*${inner.suffix}` } } : {}),
    };
  }
  return { type: text(field.type) || 'any' };
}
