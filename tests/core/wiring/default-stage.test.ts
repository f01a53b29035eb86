import { describe, expect, it } from 'vitest';
import { easJson, expoFiles, expoPackage, expoStages } from '../../support/expo.js';
import { flutterFiles, kelpWithBanner } from '../../support/flutter.js';
import { mauiFiles } from '../../support/maui.js';
import { gradle } from '../../support/trees.js';
import { plan, text, written, type Files } from '../../support/wiring.js';

/** What a condition of the placebook comes to, reckoned by JavaScript: the languages share the signs that it has. */
function holdsWhere(condition: string, known: Record<string, unknown>): unknown {
  const js = condition
    .replaceAll("String.fromEnvironment('FLUTTER_APP_FLAVOR')", 'FLAVOUR')
    .replace(/\s+/g, ' ');
  return new Function(...Object.keys(known), `return ${js};`)(...Object.values(known)) as unknown;
}

function conditionIn(files: Files, title: ReturnType<typeof kelpWithBanner>, path: string, shape: RegExp) {
  const book = text(written(files, plan(files, title))[path]);
  const condition = shape.exec(book)?.[1];
  if (condition === undefined) throw new Error(`no condition in ${path}:\n${book}`);
  return condition;
}

const { android } = kelpWithBanner().editions;
const flavours = gradle(
  'flavorDimensions += "shop"\n    productFlavors { create("dev") { dimension = "shop" }\n create("shop") { dimension = "shop" } }',
  '',
);

describe('the stage of a build that nothing names', () => {
  it('is test in Dart: without a flavour, or with one that no variant has', () => {
    const files = flutterFiles({ 'android/app/build.gradle.kts': flavours });
    for (const stages of [
      { test: ['dev', 'Debug'], production: ['shop', 'Release'] },
      { test: ['dev', 'debug', 'devDebug'], production: ['shopRelease', 'Release'] },
    ]) {
      const title = kelpWithBanner({ stages, editions: { android } });
      const condition = conditionIn(files, title, 'lib/ads/placebook.dart', /_isTest =\s+([^;]+);/);
      const built = (FLAVOUR: string, kReleaseMode = true) =>
        holdsWhere(condition, { FLAVOUR, kReleaseMode, kDebugMode: !kReleaseMode, kProfileMode: false });
      expect([built(''), built('other'), built('dev'), built('shop')]).toEqual([true, true, true, false]);
    }
  });

  it('is test in C# of .NET MAUI: in a configuration that is given to a command alone', () => {
    const title = kelpWithBanner({ stages: { test: ['Debug'], production: ['Release'] } });
    const condition = conditionIn(mauiFiles(), title, 'Ads/Placebook.cs', /#if ([^\n]+)\n.*Stage = "test"/);
    const built = (configuration: string) =>
      holdsWhere(condition, {
        DEBUG: configuration === 'Debug',
        RELEASE: configuration === 'Release',
      });
    expect([built('Nightly'), built('Debug'), built('Release')]).toEqual([true, true, false]);
  });

  it('is test in the manifest parts of .NET MAUI, too', () => {
    const title = kelpWithBanner({ stages: { test: ['Debug'], production: ['Release'] } });
    const files = mauiFiles();
    const project = text(written(files, plan(files, title))['Kelp.csproj']);
    const conditions = [...project.matchAll(/Condition="([^"]*\$\(Configuration\)[^"]*)"/g)].map(
      ([, one]) => one,
    );
    expect([...new Set(conditions)].sort()).toEqual([
      "'$(Configuration)' != 'Release'",
      "'$(Configuration)' == 'Release'",
    ]);
  });

  it('is test in TypeScript of Expo: without the variable that a build profile sets', () => {
    const files = expoFiles({
      'eas.json': easJson,
      'package.json': expoPackage(),
    });
    const title = kelpWithBanner({ stages: expoStages });
    const condition = conditionIn(files, title, 'src/ads/placebook.ts', /const isTest = ([^;]+);/);
    const built = (env: Record<string, string>, __DEV__ = false) =>
      holdsWhere(condition, { process: { env }, __DEV__ });
    const variable = /process\.env\.(\w+)/.exec(condition)?.[1] ?? '';
    expect(variable).not.toBe('');
    expect([built({}), built({ [variable]: 'test' }), built({ [variable]: 'production' })]).toEqual([
      true,
      true,
      false,
    ]);
  });
});
