import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { csharpSyntax } from '../../../src/core/languages/csharp/syntax.js';
import { readSource } from '../../../src/core/code/read-source.js';
import { runChecks } from '../../../src/core/checks/run.js';
import { recogniser } from '../../../src/core/network/recognise.js';
import type { FactKind, Survey } from '../../../src/core/facts/model.js';
import { runSurvey } from '../../../src/core/surveying.js';
import { filesBelow, profiles, root, syntax, treeOf } from '../../support/trees.js';
import { unityFiles } from '../../support/unity.js';

/** Trees of others, as their packages carry them. What is asserted is what a person reads in their files. */
const trees = {
  react: 'node_modules/@react-native-community/template/template',
  typed: 'node_modules/react-native-template-typescript/template',
  cordovaAndroid: 'node_modules/cordova-android/templates/project',
  cordovaIos: 'node_modules/cordova-ios/templates/project',
} as const;
const files = Object.fromEntries(
  Object.entries(trees).map(([name, path]) => [name, filesBelow(join(root, path))]),
) as unknown as Record<keyof typeof trees, Record<string, Uint8Array>>;

const survey = (name: keyof typeof trees): Survey =>
  runSurvey(treeOf(files[name]), { name, profiles, title: null }).survey;
const facts = (found: Survey, kind: FactKind, platform = 'android') =>
  found.facts
    .filter((fact) => fact.kind === kind && fact.platform === platform)
    .map(({ value, place }) => `${value} ${place.path}:${place.line}`);
const open = (found: Survey) =>
  found.unresolved.map(({ what, reason, place }) => `${what}: ${reason} (${place.path}:${place.line})`);

describe('the template of 2022', () => {
  const found = survey('typed');

  it('has one application for each platform', () => {
    expect(
      found.editions.map(({ platform, module, identifiers }) => [platform, module, identifiers]),
    ).toEqual([
      ['android', 'android/app', { debug: 'com.helloworld', release: 'com.helloworld' }],
      [
        'ios',
        'HelloWorld',
        { Debug: 'org.reactjs.native.example.HelloWorld', Release: 'org.reactjs.native.example.HelloWorld' },
      ],
    ]);
  });

  it('takes its levels from the root script', () => {
    for (const [kind, value, line] of [
      ['min-sdk', '21', 6],
      ['compile-sdk', '31', 7],
      ['target-sdk', '31', 8],
    ] as const) {
      const fact = found.facts.find((one) => one.kind === kind);
      expect(fact).toMatchObject({ value, variants: ['debug', 'release'] });
      expect(fact?.chain.at(-1)?.place).toMatchObject({ path: 'android/build.gradle', line });
    }
    expect(facts(found, 'deployment-target', 'ios')[0]).toContain(
      '12.4 ios/HelloWorld.xcodeproj/project.pbxproj:581',
    );
  });

  it('declares its class under the package of its manifest', () => {
    expect(facts(found, 'application-class')).toEqual([
      'com.helloworld.MainApplication android/app/src/main/AndroidManifest.xml:7',
      'MainApplication android/app/src/main/java/com/helloworld/MainApplication.java:16',
    ]);
  });

  it('says which scripts of other packages it cannot see', () => {
    expect(open(found)).toEqual([
      expect.stringContaining(
        'react.gradle adds to the build: it is not in the tree (android/app/build.gradle:85)',
      ),
      expect.stringContaining(
        'native_modules.gradle adds to the build: it is not in the tree (android/app/build.gradle:305)',
      ),
    ]);
  });
});

describe('the Cordova template for Android', () => {
  const found = survey('cordovaAndroid');

  it('builds debug and release; its flavours depend on the build', () => {
    expect(found.editions.map(({ module, variants }) => [module, variants.map(({ name }) => name)])).toEqual([
      ['app', ['debug', 'release']],
    ]);
    expect(open(found)).toContainEqual(
      expect.stringContaining('which flavours are built: some are added under a condition'),
    );
  });

  it('computes its identifier and levels, which is said and not guessed', () => {
    expect(found.editions[0]?.identifier).toBeNull();
    for (const [what, name, line] of [
      ['application ID', 'PACKAGE_NAMESPACE', 194],
      ['minSdk', 'MIN_SDK_VERSION', 196],
      ['targetSdk', 'SDK_VERSION', 200],
    ] as const)
      expect(open(found)).toContainEqual(
        `${what}: “cordovaConfig.${name}” is not set in any file of the tree (app/build.gradle:${line})`,
      );
  });
});

describe('the Cordova template for iOS', () => {
  const found = survey('cordovaIos');

  it('has one target with two configurations, and a bundle ID that needs a team', () => {
    expect(
      found.editions.map(({ module, identifier, variants }) => [
        module,
        identifier,
        variants.map(({ name }) => name),
      ]),
    ).toEqual([['App', null, ['Debug', 'Release']]]);
    expect(open(found)).toEqual(
      [455, 493].map(
        (line) =>
          `bundle ID: nothing in the tree sets $(DEVELOPMENT_TEAM) (App.xcodeproj/project.pbxproj:${line})`,
      ),
    );
  });

  it('has its level, its workspace and its privacy manifest', () => {
    expect(
      new Set(found.facts.filter(({ kind }) => kind === 'deployment-target').map(({ value }) => value)),
    ).toEqual(new Set(['13.0']));
    expect(facts(found, 'workspace', 'ios')).toEqual([
      'App.xcworkspace App.xcworkspace/contents.xcworkspacedata:1',
    ]);
    expect(facts(found, 'plist-key', 'ios')).toEqual(['false App/PrivacyInfo.xcprivacy:23']);
  });
});

describe.each(Object.keys(trees) as (keyof typeof trees)[])('%s', (name) => {
  it('can be read in every file, and has no blocker by itself', () => {
    const found = survey(name);
    expect(found.problems).toEqual([]);
    const { summary } = runChecks({
      survey: found,
      profiles,
      recogniser: recogniser(profiles),
      title: null,
      titleId: null,
      inventories: [],
      now: '2026-11-23T00:00:00Z',
    });
    expect(summary.blocker).toBe(0);
  });

  it('never breaks the survey, whatever happens to its bytes', () => {
    const readable = Object.keys(files[name]).filter((path) =>
      /(gradle|gradle\.kts|properties|xml|plist|pbxproj|xcconfig|Podfile|storyboard|java|kt|swift|m)$/.test(
        path,
      ),
    );
    fc.assert(
      fc.property(
        fc.constantFrom(...readable),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.integer({ min: 1, max: 60 }),
        fc.constantFrom('drop', 'double', 'flip'),
        (path, where, length, how) => {
          const bytes = files[name][path]!;
          const at = Math.floor(where * bytes.length);
          const piece = bytes.slice(at, at + length);
          const middle =
            how === 'drop'
              ? []
              : how === 'double'
                ? [...piece, ...piece]
                : [...piece].map((byte) => byte ^ 0x15);
          const changed = Uint8Array.from([...bytes.slice(0, at), ...middle, ...bytes.slice(at + length)]);
          const found = runSurvey(treeOf({ ...files[name], [path]: changed }), {
            name,
            profiles,
            title: null,
          }).survey;
          expect(found.facts.length + found.unresolved.length + found.problems.length).toBeGreaterThanOrEqual(
            0,
          );
        },
      ),
      { numRuns: 40 },
    );
  }, 60_000);
});

describe('a package of others in a Unity project', () => {
  const scripts = filesBelow(join(root, 'node_modules/com.neuecc.unirx'));
  const sources = Object.keys(scripts).filter((path) => path.endsWith('.cs'));
  const inside = Object.fromEntries(
    Object.entries(scripts).map(([path, content]) => [`Packages/com.neuecc.unirx/${path}`, content]),
  );

  it('has C# that is read in every way through its conditions, and no class is overlooked', () => {
    expect(sources.length).toBeGreaterThan(200);
    for (const path of sources) {
      const text = scripts[path]!.toString('utf8');
      const { types, methods } = readSource(csharpSyntax, text, syntax) ?? { types: [], methods: [] };
      // What a reader of the text alone would find: declarations at the beginning of a line.
      const plain = text.replace(/\/\*[\s\S]*?\*\/|\/\/.*/g, '');
      const declared = [
        ...plain.matchAll(
          /^[ \t]*(?:public|internal|private|protected)?(?: (?:static|sealed|abstract|partial))* ?(?:class|struct|interface) (\w+)/gm,
        ),
      ];
      const names = new Set(types.map(({ name }) => name));
      expect([path, declared.map(([, name]) => name).filter((name) => !names.has(name ?? ''))]).toEqual([
        path,
        [],
      ]);
      if (/\bvoid \w+\(/.test(plain) && types.length > 0)
        expect([path, methods.length > 0]).toEqual([path, true]);
    }
  });

  it('says nothing of ads, is part of both editions, and of neither where it is compiled for the editor', () => {
    const files = unityFiles(
      Object.fromEntries(Object.entries(inside).map(([path, content]) => [path, content.toString('utf8')])),
    );
    const found = runSurvey(treeOf(files), { name: 'unirx', profiles, title: null }).survey;
    expect(found.problems).toEqual([]);
    expect(found.stacks.map(({ stack, root: at }) => [stack, at])).toEqual([['unity', '']]);
    expect(found.facts.filter(({ place }) => place.path.includes('unirx'))).toEqual([]);
    const unit = 'class Reef { string unit = "CH-U-310772-BBBB1111"; }';
    const units = (path: string) =>
      runSurvey(treeOf({ ...files, [path]: unit }), {
        name: 'unirx',
        profiles,
        title: null,
      }).survey.facts.filter(({ kind }) => kind === 'unit-id').length;
    expect(units('Packages/com.neuecc.unirx/Reef.cs')).toBe(2);
  });

  it('never breaks a reading, whatever happens to its bytes', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...sources),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.integer({ min: 1, max: 80 }),
        fc.boolean(),
        (path, where, length, doubled) => {
          const text = scripts[path]!.toString('utf8');
          const at = Math.floor(where * text.length);
          const piece = text.slice(at, at + length);
          const changed = text.slice(0, at) + (doubled ? piece + piece : '') + text.slice(at + length);
          for (const { start, end } of readSource(csharpSyntax, changed, syntax)?.strings ?? [])
            expect(start <= end && end <= changed.length).toBe(true);
        },
      ),
      { numRuns: 60 },
    );
  }, 60_000);
});
