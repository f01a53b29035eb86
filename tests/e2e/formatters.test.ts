import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { format as clangFormat } from '@wasm-fmt/clang-format';
import * as prettier from 'prettier';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { placebookContents } from '../../src/core/placebook/contents.js';
import { preprocessed } from '../../src/core/syntax/preprocessor.js';
import { csharpPlacebook } from '../../src/core/languages/csharp/placebook.js';
import { dartPlacebook } from '../../src/core/languages/dart/placebook.js';
import { javaPlacebook } from '../../src/core/languages/java/placebook.js';
import { kotlinPlacebook } from '../../src/core/languages/kotlin/placebook.js';
import { objectiveCHeader, objectiveCSource } from '../../src/core/languages/objective-c/placebook.js';
import { typescriptPlacebook } from '../../src/core/languages/typescript/placebook.js';
import { Title } from '../../src/core/roster/model.js';
import { DartFormat } from '../support/dart-format.js';
import { options, packageName, title } from '../support/kelp.js';
import { profiles, root, syntax } from '../support/trees.js';

// The formatters of the languages as judges: what is generated, they leave as it is. Swift and C# have none that could
// be installed here; their placebooks are read by eye and held by their syntax tree only. Dart’s runs in the browser.

const folder = mkdtempSync(join(tmpdir(), 'syndexa-format-'));
let dartFormat: DartFormat;
beforeAll(async () => {
  dartFormat = await DartFormat.start();
});
afterAll(async () => {
  await dartFormat.stop();
  rmSync(folder, { recursive: true, force: true });
});

const banner = (name: string, at: number) => ({
  [name]: {
    format: 'banner' as const,
    where: `on screen ${at}`,
    settings: { refresh: '60s', content: ['text' as const, 'image' as const, 'video' as const] },
    units: {
      'cobalt-heron': {
        android: { production: `CH-U-310772-MANY${1000 + at}` },
        ios: { production: `CH-U-310772-MANY${2000 + at}` },
      },
    },
  },
});
const devices = Array.from({ length: 9 }, (_, at) => `device-${at}-in-the-drawer-below-the-desk`);
const heron = title.networks['cobalt-heron'];
const manyDevices = {
  android: { ...heron?.android, test: { devices } },
  ios: { ...heron?.ios, test: { devices } },
};
/** One placement, some that try every setting, and so many that no list of them fits a line. */
const shapes: Record<string, Title> = {
  one: Title.parse({ ...title, placements: { 'home-footer': title.placements['tide-list-footer'] } }),
  every: title,
  many: Title.parse({
    ...title,
    networks: {
      ...title.networks,
      'cobalt-heron': { ...title.networks['cobalt-heron'], ...manyDevices },
    },
    placements: Object.assign(
      {},
      ...Array.from({ length: 23 }, (_, at) => banner(`screen-${at}-footer`, at)),
    ),
  }),
};
const clang = { BasedOnStyle: 'LLVM', IndentWidth: 4, ColumnLimit: 100 };
const styles = {
  'objective-c': { ...clang, ObjCBlockIndentWidth: 4 },
  java: {
    ...clang,
    ContinuationIndentWidth: 8,
    AlignAfterOpenBracket: 'DontAlign',
    AllowShortFunctionsOnASingleLine: 'Empty',
  },
};
const cases = Object.keys(shapes).flatMap((shape) =>
  (['test', 'production'] as const).map((stage) => ({ shape, stage })),
);

describe.each(cases)('a placebook of $shape for $stage', ({ shape, stage }) => {
  const of = shapes[shape] ?? title;
  const mine = profiles.filter(({ id }) => id in of.networks);
  const book = (platform: 'android' | 'ios', at: 'test' | 'production') =>
    placebookContents(of, mine, platform, at);

  it('in Java is as clang-format leaves it', () => {
    const java = javaPlacebook(book('android', stage), { ...options, packageName, stage });
    expect(clangFormat(java, 'Placebook.java', JSON.stringify(styles.java))).toBe(java);
  });

  it('in Objective-C is as clang-format leaves it', () => {
    const named = { ...options, testCondition: 'DEBUG' };
    const both = [book('ios', 'test'), book('ios', 'production')] as const;
    for (const text of [objectiveCHeader(...both, named), objectiveCSource(...both, named)]) {
      expect(clangFormat(text, 'Placebook.m', JSON.stringify(styles['objective-c']))).toBe(text);
    }
  });

  it('in Dart is as dart format leaves it, and its syntax tree has no fault', async () => {
    const books = Object.fromEntries(
      (['android', 'ios'] as const).map((platform) => [
        platform,
        { test: book(platform, 'test'), production: book(platform, 'production') },
      ]),
    );
    const conditions = {
      test: '!kReleaseMode',
      production:
        "String.fromEnvironment('FLUTTER_APP_FLAVOR') != 'shop' && String.fromEnvironment('FLUTTER_APP_FLAVOR') != 'beta'",
    };
    const dart = dartPlacebook(books, { ...options, testCondition: conditions[stage] });
    expect(await dartFormat.format(dart)).toBe(dart);
    expect(syntax.visit('dart', dart, (tree) => tree.hasError)).toBe(false);
  });

  it('in C# has no fault in its syntax tree, whatever is defined', () => {
    const books = Object.fromEntries(
      (['android', 'ios'] as const).map((platform) => [
        platform,
        { test: book(platform, 'test'), production: book(platform, 'production') },
      ]),
    );
    const testCondition = stage === 'test' ? '!RELEASE && !BETA' : 'false';
    for (const namespace of [undefined, 'Brine.Kelp']) {
      const symbols = { android: 'ANDROID', ios: 'IOS' };
      const csharp = csharpPlacebook(books, { ...options, testCondition, symbols, namespace });
      for (const view of preprocessed(csharp))
        expect(syntax.visit('c_sharp', view, (tree) => tree.hasError)).toBe(false);
      expect(csharp).not.toMatch(/[ \t]$/m);
    }
  });

  it('in TypeScript is as prettier leaves it, and its syntax tree has no fault', async () => {
    const books = Object.fromEntries(
      (['android', 'ios'] as const).map((platform) => [
        platform,
        { test: book(platform, 'test'), production: book(platform, 'production') },
      ]),
    );
    const testCondition = stage === 'test' ? '__DEV__' : 'false';
    const typescript = typescriptPlacebook(books, { ...options, testCondition });
    for (const arrowParens of ['avoid', 'always'] as const) {
      const style = { parser: 'typescript', singleQuote: true, trailingComma: 'all', arrowParens } as const;
      expect(await prettier.format(typescript, style)).toBe(typescript);
    }
    expect(syntax.visit('typescript', typescript, (tree) => tree.hasError)).toBe(false);
  });

  it('in Kotlin is as ktlint leaves it', () => {
    const kotlin = kotlinPlacebook(book('android', stage), { ...options, packageName, stage });
    writeFileSync(join(folder, '.editorconfig'), 'root = true\n[*.kt]\nktlint_code_style = android_studio\n');
    writeFileSync(join(folder, 'Placebook.kt'), kotlin);
    const ktlint = join(root, 'node_modules', '@naturalcycles', 'ktlint', 'resources', 'ktlint');
    execFileSync('java', ['-jar', ktlint, '--format', 'Placebook.kt'], { cwd: folder, stdio: 'pipe' });
    expect(readFileSync(join(folder, 'Placebook.kt'), 'utf8')).toBe(kotlin);
  }, 60_000);
});
