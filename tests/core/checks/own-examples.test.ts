import { describe, expect, it } from 'vitest';
import type { Profile } from '../../../src/core/network/model.js';
import { languageNamed, type LanguageName } from '../../../src/core/languages/index.js';
import { Title } from '../../../src/core/roster/model.js';
import { flutterFiles } from '../../support/flutter.js';
import { mauiFiles } from '../../support/maui.js';
import { reactNativeFiles } from '../../support/react-native.js';
import { findingsOf } from '../../support/rules.js';
import { androidFiles, iosFiles, profiles } from '../../support/trees.js';
import { plan, titleOn, written } from '../../support/wiring.js';

/** A file of a language that makes some calls, each in a method of its own, and the tree that it is in. */
const settings: Partial<
  Record<LanguageName, (imports: readonly string[], calls: readonly string[]) => Record<string, string>>
> = {
  kotlin: (imports, calls) =>
    androidFiles({
      'app/src/main/java/example/brine/kelp/KelpApp.java': null,
      'app/src/main/java/example/brine/kelp/Ads.kt': `package example.brine.kelp\n\n${imports.map((one) => `import ${one}\n`).join('')}\nclass Ads {\n${calls.map((one, at) => `  suspend fun call${at}(context: Context) {\n    ${one}\n  }\n`).join('')}}\n`,
    }),
  java: (imports, calls) =>
    androidFiles({
      'app/src/main/java/example/brine/kelp/KelpApp.java': null,
      'app/src/main/java/example/brine/kelp/Ads.java': `package example.brine.kelp;\n\n${imports.map((one) => `import ${one};\n`).join('')}\nclass Ads {\n${calls.map((one, at) => `  void call${at}(Context context) {\n    ${one}\n  }\n`).join('')}}\n`,
    }),
  swift: (imports, calls) =>
    iosFiles({
      'Kelp/App.swift': `${imports.map((one) => `import ${one}\n`).join('')}\nfinal class Ads {\n${calls.map((one, at) => `  func call${at}() async {\n    ${one}\n  }\n`).join('')}}\n`,
    }),
  'objective-c': (imports, calls) => ({
    ...iosFiles({ 'Kelp/App.swift': null }),
    'Kelp.xcodeproj/project.pbxproj': iosFiles()['Kelp.xcodeproj/project.pbxproj']!.replaceAll(
      'App.swift',
      'App.m',
    ),
    'Kelp/App.m': `${imports.map((one) => `#import <${one}>\n`).join('')}\n@implementation Ads\n${calls.map((one, at) => `- (void)call${at} {\n    ${one}\n}\n`).join('')}@end\n`,
  }),
  dart: (imports, calls) =>
    flutterFiles({
      'lib/ads.dart': `${imports.map((one) => `import '${one}';\n`).join('')}import 'package:flutter/foundation.dart';\n\nclass Ads {\n${calls.map((one, at) => `  Future<void> call${at}() async {\n    ${one}\n  }\n`).join('')}}\n`,
      'lib/main.dart':
        "import 'package:flutter/material.dart';\n\nvoid main() => runApp(const Text('kelp'));\n",
    }),
  typescript: (imports, calls) =>
    reactNativeFiles({
      'src/ads.ts': `${imports.map((one) => `import * as sdk from '${one}';\n`).join('')}\n${calls.map((one, at) => `export async function call${at}() {\n  ${one}\n}\n`).join('')}`,
      'App.tsx': 'export const App = () => null;\n',
    }),
  csharp: (imports, calls) =>
    mauiFiles({
      'Ads.cs': `${imports.map((one) => `using ${one};\n`).join('')}\nnamespace Brine.Kelp;\n\npublic static class Ads\n{\n${calls.map((one, at) => `    public static async Task Call${at}()\n    {\n        ${one}\n    }\n`).join('')}}\n`,
    }),
};
/** What an example that is on until a build says otherwise is put under. */
const guards: Partial<Record<LanguageName, (call: string) => string>> = {
  swift: (call) => `#if DEBUG\n    ${call}\n    #endif`,
  'objective-c': (call) => `#if DEBUG\n    ${call}\n#endif`,
  csharp: (call) => `#if DEBUG\n        ${call}\n#endif`,
};

const cases = profiles.flatMap((profile) =>
  Object.keys(profile.code).map((language) => [profile.id, language as LanguageName, profile] as const),
);

function examplesOf({ id, code }: Profile, language: LanguageName, placement: string): string[] {
  const calls = code[language];
  const { reference } = languageNamed(language);
  const named = (example: string) =>
    example
      .replaceAll('UNIT_ID', reference.unit(placement, id))
      .replaceAll('APP_ID', reference.app(id))
      .replaceAll('TEST_DEVICES', `Placebook.testDevices`);
  const devices = calls?.['test-devices']?.example;
  const guarded = devices && (/true|YES/.test(devices) ? (guards[language]?.(devices) ?? devices) : devices);
  return [calls?.start?.example, calls?.consent?.example, guarded]
    .flatMap((example) => (example === undefined ? [] : [named(example)]))
    .concat(Object.values(calls?.formats ?? {}).flatMap((one) => (one?.example ? [named(one.example)] : [])));
}

describe('the examples of a profile', () => {
  it.each(cases)('of %s in %s are no findings', (network, language, profile) => {
    const title = Title.parse(
      titleOn([network], { android: 'example.brine.kelp', ios: 'example.brine.kelp' }),
    );
    const imports = profile.code[language]?.imports ?? [];
    const examples = examplesOf(profile, language, `spot-${network}`);
    const files = settings[language]?.(imports, examples) ?? {};
    const wired = written(files, plan(files, title)) as Record<string, string>;
    const texts = Object.fromEntries(
      Object.entries(wired).map(([path, content]) => [
        path,
        typeof content === 'string' ? content : Buffer.from(content).toString(),
      ]),
    );
    const own = Object.keys(files).find((path) =>
      /(?:Ads|ads|App)\.(?:kt|java|swift|m|dart|ts|cs)$/.test(path),
    );
    expect(own).toBeDefined();
    const wrong = findingsOf(texts, title)
      .filter(({ place, severity }) => place?.path === own && severity !== 'note')
      // A call alone is no whole screen: what it lacks around it is said at its line.
      .filter(
        ({ rule }) =>
          !/code\/(never-released|failure-not-handled|no-way-on|wrong-format|listener-kept)$/.test(rule),
      );
    expect(wrong.map(({ rule, message, place }) => `${rule} ${place?.line}: ${message}`)).toEqual([]);
  });
});
