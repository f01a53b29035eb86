import * as z from 'zod';
import { putAt, valueAt } from '../core/text/own-values.js';
import * as adopting from '../core/adopting/model.js';
import * as board from '../core/board/model.js';
import * as checks from '../core/checks/model.js';
import * as edits from '../core/edits/model.js';
import * as effective from '../core/facts/effective.js';
import * as evidence from '../core/facts/evidence.js';
import { factDefinitions } from '../core/facts/kinds/index.js';
import * as facts from '../core/facts/model.js';
import * as readings from '../core/inventory/model.js';
import * as network from '../core/network/model.js';
import * as roster from '../core/roster/model.js';
import * as coreSteps from '../core/steps/model.js';
import * as words from '../core/words/words.js';
import * as appAds from './app-ads.js';
import * as attribution from './attribution.js';
import * as events from './events.js';
import * as inventory from './inventory.js';
import * as networks from './networks.js';
import * as problem from './problem.js';
import * as roles from './roles.js';
import * as steps from './steps.js';
import * as titles from './titles.js';
import * as trees from './trees.js';

type Json = Record<string, unknown>;

const place = '#/components/schemas/';
const suffixOfInput = 'Input';

/** The shape of each kind of fact: `UnitIdFact` for `unit-id`. */
const kinds = Object.fromEntries(
  factDefinitions.map(({ kind, schema }) => [
    `${kind.replace(/(^|-)([a-z])/g, (_, __, letter: string) => letter.toUpperCase())}Fact`,
    schema,
  ]),
);

/** Where the shapes come from that have a name. */
const modules = [
  problem,
  roles,
  titles,
  inventory,
  networks,
  appAds,
  attribution,
  steps,
  trees,
  events,
  roster,
  facts,
  evidence,
  effective,
  kinds,
  checks,
  board,
  edits,
  adopting,
  readings,
  network,
  coreSteps,
  words,
] satisfies object[];

/** Every shape that has a name of its own, which is that of its export. */
function namedShapes() {
  const named = z.registry<{ id: string }>();
  const taken = new Set<string>();
  for (const [name, value] of modules.flatMap((module) => Object.entries<unknown>(module))) {
    if (!(value instanceof z.ZodType) || named.has(value) || taken.has(name)) continue;
    taken.add(name);
    named.add(value, { id: name });
  }
  return named;
}

type NamedShapes = ReturnType<typeof namedShapes>;

/** A JSON Schema that refers to named shapes, which are in `$defs`. */
function schemaWithNames(
  type: z.ZodType,
  io: 'input' | 'output',
  metadata: NamedShapes,
): Json & { $defs?: Json } {
  return z.toJSONSchema(type, {
    io,
    unrepresentable: 'any',
    metadata,
    override: ({ zodSchema, jsonSchema }) => {
      const { title, description } = z.globalRegistry.get(zodSchema) ?? {};
      if (title !== undefined) jsonSchema.title = title;
      if (description !== undefined) jsonSchema.description = description;
      delete jsonSchema.id;
    },
  });
}

let names: NamedShapes | undefined;

/** The JSON Schema of a shape as a separate document, with each named shape once in `$defs`. */
export function schemaDocument(type: z.ZodType, io: 'input' | 'output'): Json {
  names ??= namedShapes();
  const { $schema, $ref, $defs = {}, ...rest } = schemaWithNames(type, io, names);
  const name = typeof $ref === 'string' ? $ref.replace('#/$defs/', '') : undefined;
  if (name === undefined) return { $schema, ...rest, ...(Object.keys($defs).length > 0 ? { $defs } : {}) };
  const { [name]: root, ...others } = $defs;
  return { $schema, ...(root as Json), ...(Object.keys(others).length > 0 ? { $defs: others } : {}) };
}

/** The component schemas of an OpenAPI document: collects the shapes that are referred to. */
export class Components {
  private readonly schemas: Json = {};
  readonly #named = namedShapes();

  /**
   * The JSON Schema of a shape, in which shapes that have a name are referred to.
   * @param io what is sent (`input`, before defaults are filled in) or what is answered (`output`)
   */
  schema(type: z.ZodType, io: 'input' | 'output'): Json {
    const { $schema: _, $defs, ...schema } = schemaWithNames(type, io, this.#named);
    // What is sent may leave out what has a default, so it may be another shape than what is answered.
    const rename = (name: string) => (io === 'input' ? `${name}${suffixOfInput}` : name);
    for (const [name, part] of Object.entries($defs ?? {}))
      putAt(this.schemas, rename(name), withReferences(part, rename));
    return withReferences(schema, rename) as Json;
  }

  /** A document that refers to these schemas, with them in it. */
  completed(document: Json & { components: Json }): Json {
    const renamed = this.renamed();
    const schemas = Object.fromEntries(
      Object.entries(this.schemas)
        .map(([name, schema]) => [renamed.get(name) ?? name, schema] as const)
        .sort(([a], [b]) => (a < b ? -1 : 1)),
    );
    const whole = { ...document, components: { schemas, ...document.components } };
    return withReferences(whole, (name) => renamed.get(name) ?? name) as Json;
  }

  /** The new names of input shapes that say the same as their output shape, or have none. */
  private renamed(): ReadonlyMap<string, string> {
    const names = Object.keys(this.schemas).filter((name) => name.endsWith(suffixOfInput));
    const renamed = new Map(names.map((name) => [name, name.slice(0, -suffixOfInput.length)]));
    const text = (schema: unknown) =>
      JSON.stringify(withReferences(schema, (name) => renamed.get(name) ?? name));
    for (let before = -1; before !== renamed.size;) {
      before = renamed.size;
      for (const [name, short] of renamed) {
        const output = valueAt(this.schemas, short);
        if (output !== undefined && text(valueAt(this.schemas, name)) !== text(output)) renamed.delete(name);
      }
    }
    return renamed;
  }
}

/** A copy in which references to shapes have other names. */
function withReferences(value: unknown, rename: (name: string) => string): unknown {
  if (Array.isArray(value)) return value.map((item) => withReferences(item, rename));
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, item]) => {
      const name = key === '$ref' && typeof item === 'string' ? /[^/]+$/.exec(item)?.[0] : undefined;
      return [key, name === undefined ? withReferences(item, rename) : `${place}${rename(name)}`];
    }),
  );
}
