import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { lexGradle } from '../../../src/core/formats/gradle/lex.js';
import { blockBody, callsIn, literal, pathOf, settingIn } from '../../../src/core/formats/gradle/query.js';
import { maxGradleDepth } from '../../../src/core/formats/gradle/expressions.js';
import { readGradle } from '../../../src/core/formats/gradle/read.js';
import { readVersionCatalog } from '../../../src/core/formats/version-catalog/read.js';
import { grows } from '../../support/growth.js';
import { root } from '../../support/trees.js';

const statements = (text: string) => readGradle(text).statements;
const setting = (text: string, ...names: string[]) => literal(settingIn(statements(text), names)?.value);

describe('lexing Gradle', () => {
  it('covers the text: every token is where it says', () => {
    const text = 'val a = "x${b("}")}y" // c\n/* d */ foo \'e\' 1_000L """f\ng""" ?: `odd name`';
    const { tokens, problems } = lexGradle(text);
    expect(problems).toEqual([]);
    for (const { kind, text: inner, start, end } of tokens)
      if (kind === 'symbol' || kind === 'number') expect(text.slice(start, end)).toBe(inner);
    expect(tokens.filter(({ kind }) => kind === 'string').map(({ text: inner }) => inner)).toEqual([
      'x${b("}")}y',
      'e',
      'f\ng',
    ]);
  });

  it.each([
    ['a = "open\nb = 1', 'This string is never closed.'],
    ['/* open', 'This comment is never closed.'],
  ])('reports %j and goes on', (text, message) => {
    expect(lexGradle(text).problems.map((problem) => problem.message)).toEqual([message]);
  });
});

describe('reading Gradle', () => {
  it.each([
    ['minSdk = 24', 'minSdk'],
    ['minSdk 24', 'minSdk'],
    ['minSdk(24)', 'minSdk'],
    ['minSdk\t24 // lowest', 'minSdk'],
    ['setMinSdk(23)\nminSdk = 24', 'minSdk'],
    ['minSdk = 21\nminSdk = 24', 'minSdk'],
  ])('finds the same setting in %j', (text, name) => {
    expect(setting(text, name)).toBe('24');
  });

  it.each([
    ["applicationId 'a.b'", 'a.b'],
    ['applicationId "a.b"', 'a.b'],
    ['applicationId = "a.b"', 'a.b'],
    ['applicationId("a.b")', 'a.b'],
    ['applicationId = """a.b"""', 'a.b'],
    ['applicationId "${base}.b"', undefined],
    ['applicationId id()', undefined],
  ])('reads strings plainly written, and no others: %j', (text, value) => {
    expect(setting(text, 'applicationId')).toBe(value);
  });

  it('reads blocks of both languages, opened more than once', () => {
    const text =
      'android {\n  defaultConfig { minSdk 1 }\n}\nandroid {\n  buildTypes {\n    getByName("release") { isMinifyEnabled = true }\n  }\n}\n';
    const android = blockBody(statements(text), 'android');
    expect(callsIn(android).map(({ path }) => path)).toEqual(['defaultConfig', 'buildTypes']);
    expect(
      callsIn(blockBody(android, 'buildTypes')).map(({ path, call }) => [path, literal(call.args[0]?.value)]),
    ).toEqual([['getByName', 'release']]);
  });

  it('reads chains, infix calls and named arguments', () => {
    const [id, apply, chained] = statements(
      "id 'x' version '1' apply false\napply plugin: 'y', to: z\nlibs.versions.minSdk\n    .get()\n    .toInt()\n",
    );
    expect(id).toMatchObject({
      type: 'expression',
      value: { type: 'call', callee: { type: 'member', name: 'apply' } },
    });
    expect(apply).toMatchObject({ value: { args: [{ name: 'plugin' }, { name: 'to' }] } });
    expect(chained).toMatchObject({ value: { type: 'call', callee: { name: 'toInt' } } });
  });

  it('marks what stands under a condition', () => {
    const calls = callsIn(
      statements('if (x) { implementation("a") } else { implementation("b") }\nimplementation("c")\n'),
    );
    expect(calls.map(({ path, conditional }) => [path, conditional])).toEqual([
      ['implementation', true],
      ['implementation', true],
      ['implementation', false],
    ]);
  });

  it('reads the real scripts of the React Native template', () => {
    const folder = join(root, 'node_modules/@react-native-community/template/template/android');
    for (const name of ['build.gradle', 'settings.gradle', 'app/build.gradle']) {
      const { problems, statements: found } = readGradle(readFileSync(join(folder, name), 'utf8'));
      expect(problems).toEqual([]);
      expect(found.length).toBeGreaterThan(1);
    }
  });

  it('goes on after half a template', () => {
    const { problems, statements: found } = readGradle(
      'android {\n  minSdk = {{ min }\n  {% if x %}\n  namespace = "a.b"\n}\ndependencies { implementation("c") }\n',
    );
    expect(problems.length).toBeGreaterThan(0);
    expect(JSON.stringify(found)).toContain('a.b');
  });

  it('bounds nesting', () => {
    const { problems } = readGradle('a {'.repeat(5_000));
    expect(problems.some(({ message }) => message.includes(`more than ${maxGradleDepth} deep`))).toBe(true);
    expect(readGradle('('.repeat(20_000)).problems.length).toBeGreaterThan(0);
  });

  it('reads anything without failing, and every place lies in the text', () => {
    const piece = fc.constantFrom(
      'android',
      ' ',
      '{',
      '}',
      '(',
      ')',
      '[',
      ']',
      '"',
      "'",
      '$',
      '${',
      '=',
      '+=',
      '.',
      ',',
      ':',
      '\n',
      'if',
      'else',
      'val',
      'def',
      'by',
      '1',
      '?:',
      '//',
      '/*',
      '*/',
      'to',
      '->',
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 60 }), (parts) => {
        const text = parts.join('');
        const { statements: found, problems } = readGradle(text);
        for (const { start, end } of [...found, ...problems])
          expect(0 <= start && start <= end && end <= text.length).toBe(true);
      }),
      { numRuns: 600 },
    );
  });

  it('names paths of plain names only', () => {
    const [first] = statements('a.b.c(1)');
    expect(first?.type === 'expression' && first.value.type === 'call' && pathOf(first.value.callee)).toBe(
      'a.b.c',
    );
    const [second] = statements('f().b');
    expect(second?.type === 'expression' && pathOf(second.value)).toBe(null);
  });
});

describe('version catalogues', () => {
  const text =
    '[versions]\nheron = "6.2.0"\nrich = { strictly = "2.0" }\n\n[libraries]\nheron-ads = { module = "example.cobaltheron:ads-sdk", version.ref = "heron" }\nplain = "a.b:c:1.0"\ngrouped = { group = "a.b", name = "d", version = "3" }\nfree = { module = "a.b:e" }\n\n[bundles]\nads = ["heron-ads", "plain"]\n\n[plugins]\nandroid-application = { id = "com.android.application", version.ref = "rich" }\n';
  it('are read with versions resolved and places known', () => {
    const catalog = readVersionCatalog(text);
    expect(catalog.problems).toEqual([]);
    expect(catalog.libraries.map(({ alias, name, version }) => [alias, name, version])).toEqual([
      ['heron.ads', 'example.cobaltheron:ads-sdk', '6.2.0'],
      ['plain', 'a.b:c', '1.0'],
      ['grouped', 'a.b:d', '3'],
      ['free', 'a.b:e', undefined],
    ]);
    expect(catalog.bundles.get('ads')).toEqual(['heron.ads', 'plain']);
    expect(catalog.plugins[0]).toMatchObject({
      alias: 'android.application',
      name: 'com.android.application',
      version: '2.0',
    });
    expect(text.slice(catalog.libraries[0]!.start).startsWith('heron-ads')).toBe(true);
  });

  it('come to nothing for versions that stand for each other', () => {
    const { libraries } = readVersionCatalog(
      '[versions]\na = { ref = "b" }\nb = { ref = "a" }\n[libraries]\nx = { module = "example.a:b", version.ref = "a" }\n',
    );
    expect(libraries).toEqual([expect.objectContaining({ alias: 'x', version: undefined })]);
  });

  it('are read in time that grows with their length, with long keys too', () => {
    grows((length) => {
      const text = `[libraries]\n${Array.from({ length: length / 40 }, (_, at) => `lib-${at} = "example.a:lib-${at}:1.0"\n`).join('')}`;
      return () => readVersionCatalog(text);
    });
    grows((length) => () => readVersionCatalog(`[versions]\n"${'a-'.repeat(length / 2)}" = "1"\n`));
  });

  it('report where TOML is broken', () => {
    const { problems, libraries } = readVersionCatalog('[versions]\nheron = \n');
    expect(libraries).toEqual([]);
    expect(problems).toHaveLength(1);
    expect(readVersionCatalog('[libraries]\na = 3\n').problems[0]?.message).toContain(
      'not a version catalogue',
    );
  });
});
