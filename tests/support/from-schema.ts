import fc from 'fast-check';

type Schema = Record<string, any>;

/** Values that a JSON Schema allows, its bounds included. */
export function valid(schema: Schema, root: Schema, depth = 0): fc.Arbitrary<unknown> {
  const again = (part: Schema) => valid(part, root, depth + 1);
  if (schema.$ref) return again(resolve(schema.$ref, root));
  if ('const' in schema) return fc.constant(schema.const);
  if (schema.enum) return fc.constantFrom(...schema.enum);
  const choices: Schema[] | undefined = schema.anyOf ?? schema.oneOf;
  if (choices) return fc.oneof(...choices.map(again));
  if (schema.allOf) return again(Object.assign({}, ...schema.allOf));
  const type = Array.isArray(schema.type) ? schema.type[0] : schema.type;
  if (type === 'string') return text(schema);
  if (type === 'integer' || type === 'number') return number(schema);
  if (type === 'boolean') return fc.boolean();
  if (type === 'null') return fc.constant(null);
  if (type === 'array') {
    const most = Math.min(
      schema.maxItems ?? 3,
      depth > 4 ? (schema.minItems ?? 0) : (schema.minItems ?? 0) + 3,
    );
    return fc.array(schema.items ? again(schema.items) : junk, {
      minLength: schema.minItems ?? 0,
      maxLength: most,
    });
  }
  if (type === 'object') return object(schema, again, depth);
  return junk;
}

function resolve(reference: string, root: Schema): Schema {
  return reference
    .slice(2)
    .split('/')
    .reduce((at, key) => at[key], root);
}

function text({ minLength = 0, maxLength = 40, pattern }: Schema): fc.Arbitrary<string> {
  if (pattern) return fc.stringMatching(new RegExp(pattern, 'u'), { size: 'small' });
  const most = Math.max(minLength, Math.min(maxLength, 40));
  const bound = maxLength <= 5_000 ? [fc.constant('x'.repeat(maxLength))] : [];
  return fc.oneof(fc.string({ minLength, maxLength: most, unit: 'grapheme' }), ...bound);
}

function number({ type, minimum = -1e9, maximum = 1e9, exclusiveMinimum, exclusiveMaximum }: Schema) {
  const min = Math.ceil(exclusiveMinimum === undefined ? minimum : exclusiveMinimum + 1);
  const max = Math.floor(exclusiveMaximum === undefined ? maximum : exclusiveMaximum - 1);
  const whole = fc.oneof(fc.integer({ min, max }), fc.constantFrom(min, max));
  return type === 'integer' ? whole : fc.oneof(whole, fc.double({ min, max, noNaN: true }));
}

function object(schema: Schema, again: (part: Schema) => fc.Arbitrary<unknown>, depth: number) {
  const { properties = {}, required = [], additionalProperties, propertyNames } = schema;
  const shown = Object.entries<Schema>(properties).filter(([name]) => depth < 6 || required.includes(name));
  const fields = fc.record(Object.fromEntries(shown.map(([name, part]) => [name, again(part)])), {
    requiredKeys: required,
    noNullPrototype: true,
  });
  if (typeof additionalProperties !== 'object' || depth > 5) return fields;
  const names = propertyNames ? (again(propertyNames) as fc.Arbitrary<string>) : fc.string({ maxLength: 12 });
  const more = fc.dictionary(names, again(additionalProperties), { maxKeys: 3, noNullPrototype: true });
  return fc.tuple(fields, more).map(([own, others]) => ({ ...others, ...own }));
}

/** Anything that JSON can say. */
export const junk: fc.Arbitrary<unknown> = fc.oneof(
  fc.constantFrom<unknown>(null, '', -1, 1e308, [], {}, 'x'.repeat(10_000), '\u0000\u001b[31m', '../../etc'),
  fc.jsonValue({ maxDepth: 3 }),
);

/** Values that are nearly right: somewhere in them something else stands, or a field is missing or new. */
export function nearly(value: fc.Arbitrary<unknown>): fc.Arbitrary<unknown> {
  return fc
    .tuple(value, fc.nat(), junk, fc.constantFrom('put', 'drop', 'add'))
    .map(([given, seed, other, how]) => {
      const whole = structuredClone({ value: given });
      const spots: [Record<string, unknown>, string][] = [];
      const walk = (at: unknown) => {
        if (at === null || typeof at !== 'object') return;
        for (const key of Object.keys(at)) {
          spots.push([at as Record<string, unknown>, key]);
          walk((at as Record<string, unknown>)[key]);
        }
      };
      walk(whole);
      const [table, key] = spots[seed % spots.length]!;
      if (how === 'put') table[key] = other;
      else if (how === 'drop' && table !== whole) delete table[key];
      else table[['constructor', '__proto__', 'colour'][seed % 3]!] = other;
      return whole.value;
    });
}
