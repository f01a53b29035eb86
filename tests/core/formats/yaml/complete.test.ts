import fc from 'fast-check';
import { isMap, isScalar, parseDocument, visit } from 'yaml';
import { describe, expect, test } from 'vitest';
import { schemaDocuments } from '../../../../src/api/schemas.js';
import { shippedProfiles } from '../../../../src/api/shipped-profiles.js';
import { completeYaml, type CompletionSchema } from '../../../../src/core/formats/yaml/complete.js';

const profileSchema = schemaDocuments().profile as CompletionSchema;
const schema: CompletionSchema = {
  type: 'object',
  required: ['name'],
  properties: {
    name: { type: 'string', description: 'What people see.' },
    paused: { type: 'boolean' },
    stage: { enum: ['test', 'production'] },
    units: { type: 'array', items: { $ref: '#/$defs/Unit' } },
    formats: {
      type: 'object',
      propertyNames: { enum: ['banner', 'native'] },
      additionalProperties: {
        type: 'object',
        properties: { sizes: { type: 'array', items: { enum: ['small', 'tall'] } } },
      },
    },
  },
  $defs: {
    Unit: {
      anyOf: [
        { type: 'object', properties: { id: { type: 'string' }, kind: { const: 'fixed' } } },
        { type: 'object', properties: { pattern: { type: 'string' } } },
      ],
    },
  },
};

/** The labels that are offered where a text has its bar. */
function offered(text: string): string[] | null {
  const at = text.indexOf('|');
  const found = completeYaml(text.replace('|', ''), at, schema);
  return found && found.options.map(({ label }) => label);
}

describe('what a schema offers', () => {
  test.each([
    ['|', ['name', 'paused', 'stage', 'units', 'formats']],
    ['name: Kelp\n|', ['paused', 'stage', 'units', 'formats']],
    ['|\nname: Kelp\n', ['paused', 'stage', 'units', 'formats']],
    ['paused: |', ['true', 'false']],
    ['stage: te|', ['test', 'production']],
    ['units:\n  - |', ['id', 'kind', 'pattern']],
    ['units:\n- |', ['id', 'kind', 'pattern']],
    ['units:\n  - id: x\n    |', ['kind', 'pattern']],
    ['units:\n  - id: x\n  - |', ['id', 'kind', 'pattern']],
    ['units:\n  - kind: |', ['fixed']],
    ['formats:\n  |', ['banner', 'native']],
    ['formats:\n  banner:\n    |', ['sizes']],
    ['formats:\n  banner: {}\n  |', ['native']],
    ['formats:\n  banner: { |', ['sizes']],
    ['formats:\n  banner: { sizes: [small, |', ['small', 'tall']],
    ['formats:\n  banner:\n    sizes:\n      - |', ['small', 'tall']],
    ['formats: { banner: { sizes: [small] }, |', ['native']],
    ['name: "a: {b"\n|', ['paused', 'stage', 'units', 'formats']],
    ['constructor:\n  |', []],
  ])('%j', (text, labels) => expect(offered(text)).toEqual(labels));

  test.each(['# nam|', 'name: Kelp # sta|', 'name: "Ke|'])('nothing in %j', (text) =>
    expect(offered(text)).toBeNull(),
  );

  test('a key comes with its colon, what it is about, and where its word begins', () => {
    expect(completeYaml('na', 2, schema)).toMatchObject({
      from: 0,
      options: expect.arrayContaining([
        { kind: 'key', label: 'name', insert: 'name: ', about: 'What people see.', isRequired: true },
        expect.objectContaining({ label: 'units', insert: 'units:', isRequired: false }),
      ]),
    });
  });
});

describe('laws', () => {
  test('every key and every listed value of the shipped profiles is offered at its place', () => {
    let keys = 0;
    let values = 0;
    for (const { source } of shippedProfiles()) {
      const document = parseDocument(source);
      visit(document, {
        Pair(_key, pair, path) {
          if (!isScalar(pair.key) || !pair.key.range || !isMap(path.at(-1))) return;
          const name = String(pair.key.value);
          const at = pair.key.range[0];
          const completions = completeYaml(source.slice(0, at), at, profileSchema);
          const known = completions?.options.filter(({ kind }) => kind === 'key') ?? [];
          // Names of one's own, such as those of credentials, are in no list.
          if (known.length > 0) {
            expect(
              known.map(({ label }) => label),
              `${name} in ${source.slice(at - 60, at)}`,
            ).toContain(name);
            keys++;
          }
          if (!isScalar(pair.value) || !pair.value.range) return;
          const spot = pair.value.range[0];
          const choices = completeYaml(source.slice(0, spot), spot, profileSchema)?.options ?? [];
          if (choices.length === 0) return;
          expect(
            choices.map(({ label }) => label),
            name,
          ).toContain(String(pair.value.value));
          values++;
        },
      });
    }
    expect(keys).toBeGreaterThan(600);
    expect(values).toBeGreaterThan(80);
  });

  test('any text, cut anywhere, is answered or is not', () => {
    const pieces = fc.constantFrom(
      'name',
      ': ',
      '\n',
      '  ',
      '- ',
      '{',
      '}',
      '[',
      ']',
      ',',
      '#',
      '"',
      "'",
      'units:',
      '\t',
    );
    fc.assert(
      fc.property(fc.array(pieces, { maxLength: 60 }), fc.nat(200), (parts, cut) => {
        const text = parts.join('');
        const at = Math.min(cut, text.length);
        const found = completeYaml(text, at, schema);
        if (found) expect(found.from).toBeGreaterThanOrEqual(0);
      }),
    );
  });
});
