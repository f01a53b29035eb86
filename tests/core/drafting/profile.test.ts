import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { answersFrom, draftProfile, ProfileAnswers } from '../../../src/core/drafting/profile.js';
import { platformShapeOf, shapeOf } from '../../../src/core/drafting/shapes.js';
import { unclaimed } from '../../../src/core/drafting/unclaimed.js';
import { readProfile } from '../../../src/core/network/read.js';
import { formatNames, platformNames } from '../../../src/core/words/names.js';
import { stacks } from '../../../src/core/stacks/index.js';
import { androidFiles, gradle, iosFiles, manifest, plist, profiles, treeOf } from '../../support/trees.js';

const draft = (answers: unknown) => readProfile(draftProfile(ProfileAnswers.parse(answers)));

describe('drafting a profile', () => {
  it('gives a valid one from a name alone', () => {
    const { profile, problems } = draft({ id: 'brightwell', name: 'Brightwell' });
    expect(problems).toEqual([]);
    expect(profile).toMatchObject({ id: 'brightwell', name: 'Brightwell', formats: { banner: {} } });
  });

  it('puts every answer where it belongs', () => {
    const { profile, problems } = draft({
      id: 'brightwell',
      name: "Bright'well",
      formats: ['banner', 'rewarded'],
      app: { android: 'bw-a-1234567', ios: 'bw-i-7654321' },
      unit: { android: 'bw-u-20000001', ios: 'bw-u-20000002' },
      'unit-samples': { android: 'bw-u-10000001', ios: 'bw-u-10000002' },
      'manifest-key': 'example.brightwell.KEY',
      'plist-key': 'BrightwellKey',
      dependencies: ['example.brightwell:ads:2.1.0'],
      repositories: ['https://maven.brightwell.example'],
      pods: ['BrightwellAds:2.1'],
      permissions: ['android.permission.INTERNET', 'android.permission.WAKE_LOCK'],
    });
    expect(problems).toEqual([]);
    expect(profile).toMatchObject({
      name: "Bright'well",
      ids: {
        // An ID of one's own is never taken for one that is given out for testing.
        app: { pattern: 'bw-(?<platform>a|i)-[0-9]{7}', samples: {} },
        unit: {
          pattern: 'bw-u-[0-9]{8}',
          needles: ['bw-u-'],
          samples: { ios: { rewarded: 'bw-u-10000002' } },
        },
      },
      android: {
        'app-id': { place: 'manifest', key: 'example.brightwell.KEY', resource: 'brightwell_app_id' },
        dependencies: [{ coordinate: 'example.brightwell:ads', version: '2.1.0' }],
        repositories: [{ url: 'https://maven.brightwell.example' }],
        permissions: [{}, { name: 'android.permission.WAKE_LOCK' }],
      },
      ios: {
        'app-id': { place: 'plist', setting: 'BRIGHTWELL_APP_ID' },
        pods: [{ name: 'BrightwellAds', version: '2.1' }],
      },
    });
  });

  it('is valid for any answers, and its patterns take the examples', () => {
    const part = fc.stringMatching(/^[A-Za-z0-9]{1,9}$/);
    const id = fc
      .tuple(fc.stringMatching(/^[a-z]{2,5}$/), fc.constantFrom('-', '_', '.', ':', '/', '~'), part, part)
      .map(([a, mark, b, c]) => `${a}${mark}${b}${mark}${c}`);
    // IDs of one kind that look like those of the other are a fault of the answers.
    const [app, unit] = ['ap', 'un'].map((head) => id.map((rest) => `${head}${rest}`)) as [
      typeof id,
      typeof id,
    ];
    fc.assert(
      fc.property(
        fc.record({
          id: fc.stringMatching(/^[a-z]{3,12}$/).filter((name) => name !== 'constructor'),
          name: fc.stringMatching(/^[A-Za-z][ -~]{1,20}$/).filter((name) => name.trim() === name),
          platforms: fc.subarray([...platformNames], { minLength: 1 }),
          formats: fc.subarray([...formatNames], { minLength: 1 }),
          unit: fc.record({ android: unit, ios: unit }, { requiredKeys: [] }),
          app: fc.record({ android: app, ios: app }, { requiredKeys: [] }),
          'app-samples': fc.record({ android: app, ios: app }, { requiredKeys: [] }),
          'unit-samples': fc.record({ ios: unit }, { requiredKeys: [] }),
        }),
        (answers) => {
          // Examples that have nothing in common may fit either kind: the draft says so itself.
          const { problems } = draft(answers);
          expect(problems.filter(({ message }) => !message.includes('has the shape of'))).toEqual([]);
        },
      ),
      { numRuns: 300 },
    );
  });

  it('has no fixed text where IDs are numbers', () => {
    expect(shapeOf(['771420400011', '771420400012', '7714'])).toEqual({
      pattern: '[0-9]{4,12}',
      needles: [],
    });
  });

  it.each([
    [['CH-A-204418-7KQ2M9TD'], 'CH-'],
    [['https://x.example/a/1.xml', 'https://x.example/i/2.xml'], 'https://x.example/'],
    [['abc'], 'abc'],
    [['ab-1', 'xy-2'], 'ab-'],
  ])('the shape of %j', (examples, needle) => {
    const shape = shapeOf(examples);
    expect(shape.needles[0]!.startsWith(needle.slice(0, 3))).toBe(true);
    for (const example of examples) {
      expect(shape.needles.some((one) => example.includes(one))).toBe(true);
      expect(example).toMatch(new RegExp(`^(?:${shape.pattern})$`, 'u'));
    }
  });
});

describe('IDs that tell their platform', () => {
  it.each([
    ['em-a-000001', 'em-i-000002', 'em-(?<platform>a|i)-[0-9]{6}', ['em-']],
    ['CH-A-100001-SAMPLE0A', 'CH-I-100001-SAMPLE0I', 'CH-(?<platform>A|I)-', ['CH-']],
    ['x.g.1', 'x.b.2', 'x\\.(?<platform>g|b)\\.[0-9]{1}', ['x.g', 'x.b']],
  ])('%s and %s', (android, ios, pattern, needles) => {
    const shape = platformShapeOf(android, ios);
    expect(shape?.needles).toEqual(needles);
    expect(shape?.pattern.startsWith(pattern)).toBe(true);
    for (const [id, platform] of [
      [android, 'android'],
      [ios, 'ios'],
    ] as const)
      expect(new RegExp(`^(?:${shape!.pattern})$`, 'u').exec(id)?.groups?.platform).toBe(
        shape!.platforms![platform],
      );
  });
  it.each([
    ['bw-u-10000001', 'bw-u-10000002'],
    ['a-x-1', 'i-x-1'],
    ['em-a-x-1', 'em-i-y-1'],
    ['em-a-1', 'em-i-12'],
  ])('%s and %s do not', (android, ios) => {
    expect(platformShapeOf(android, ios)).toBeNull();
  });
});

describe('what a tree declares that nobody claims', () => {
  const files = {
    ...androidFiles({
      'settings.gradle.kts':
        'dependencyResolutionManagement { repositories { maven("https://maven.brightwell.example/r")\n maven { url = uri("https://maven.cobaltheron.example/release") } } }\ninclude(":app")\n',
      'app/build.gradle.kts': gradle(
        '',
        'implementation("example.cobaltheron:ads-sdk:6.2.0")\n    implementation("example.brightwell:sdk:3.0.1")\n    implementation("androidx.core:core-ktx:1.16.0")',
      ),
      'app/src/main/AndroidManifest.xml': manifest(
        '<meta-data android:name="example.brightwell.KEY" android:value="bw-a-1234567" />\n<meta-data android:name="android.max_aspect" android:value="2.4" />',
      ),
    }),
    ...iosFiles({
      'Kelp/Info.plist': plist(
        '\t<key>BrightwellKey</key>\n\t<string>bw-i-7654321</string>\n\t<key>UIMainStoryboardFile</key>\n\t<string>Main</string>',
      ),
      Podfile:
        "target 'Kelp' do\n  pod 'CobaltHeronAds', '~> 6.2'\n  pod 'BrightwellSDK', '~> 3.0'\n  pod 'Lantern'\nend\n",
    }),
  };
  const tree = treeOf(files);
  const declared = stacks.flatMap((stack) =>
    stack.recognise(tree).flatMap(({ root }) => stack.declared(tree, root)),
  );

  it('is grouped by vendor, with its places', () => {
    const groups = unclaimed(declared, profiles);
    expect(
      groups.map(({ stem, declared: items }) => [stem, items.map(({ kind, name }) => `${kind} ${name}`)]),
    ).toEqual([
      [
        'brightwell',
        [
          'meta-data example.brightwell.KEY',
          'dependency example.brightwell:sdk',
          'plist-key BrightwellKey',
          'pod BrightwellSDK',
          'repository https://maven.brightwell.example/r',
        ],
      ],
      ['lantern', ['pod Lantern']],
    ]);
    expect(groups[0]!.declared[0]!.place).toMatchObject({
      path: 'app/src/main/AndroidManifest.xml',
      line: 7,
    });
  });

  it('becomes a valid skeleton', () => {
    const [group] = unclaimed(declared, profiles);
    const { profile, problems } = draft(answersFrom(group!.stem, group!.declared));
    expect(problems).toEqual([]);
    expect(profile).toMatchObject({
      id: 'brightwell',
      ids: { app: { pattern: 'bw-(?<platform>a|i)-[0-9]{7}', samples: {} } },
      android: { 'app-id': { key: 'example.brightwell.KEY' }, dependencies: [{ version: '3.0.1' }] },
      ios: { 'app-id': { key: 'BrightwellKey' }, pods: [{ name: 'BrightwellSDK', version: '3.0' }] },
    });
  });

  it('is nothing in a tree whose networks are all known', () => {
    const known = treeOf({ ...androidFiles(), ...iosFiles() });
    const all = stacks.flatMap((stack) =>
      stack.recognise(known).flatMap(({ root }) => stack.declared(known, root)),
    );
    expect(unclaimed(all, profiles)).toEqual([]);
  });
});
