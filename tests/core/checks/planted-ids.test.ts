import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { unitIdMistyped } from '../../../src/core/checks/rules/unit-id-mistyped.js';
import { editsApart } from '../../../src/core/text/edit-distance.js';
import type { Title } from '../../../src/core/roster/model.js';
import { findingsOf, ruleCases } from '../../support/rules.js';
import {
  androidFiles,
  appIdKey,
  appIdMetaData,
  iosFiles,
  kelp,
  manifest,
  pbxproj,
  placement,
  plist,
} from '../../support/trees.js';
import { holds, text } from '../../support/wiring.js';

const title = kelp({
  placements: {
    'level-end': placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222'),
  } as Title['placements'],
});
const code = (id: string) =>
  androidFiles({ 'app/src/main/kotlin/Ads.kt': `val ad = CobaltHeron.banner("${id}")\n` });

ruleCases(unitIdMistyped, {
  clean: [
    { name: 'the ID of the placement', files: code('CH-U-310772-BBBB1111'), title },
    { name: 'an ID that is far from all', files: code('CH-U-310772-ZZZZ9999'), title },
    { name: 'three characters away', files: code('CH-U-310772-BBBB1222'), title },
    { name: 'a sample', files: code('CH-U-100001-BANNER0A'), title },
  ],
  faulty: [
    {
      name: 'one character exchanged',
      byHand: { edits: [['app/src/main/kotlin/Ads.kt', 'BBBB1112', 'BBBB1111']] },
      files: code('CH-U-310772-BBBB1112'),
      title,
      findings: [
        {
          message:
            'No placement has CH-U-310772-BBBB1112 of Cobalt Heron. Did you mean CH-U-310772-BBBB1111 (level-end)?',
        },
      ],
    },
    {
      name: 'two characters exchanged',
      files: code('CH-U-310772-BBBB1133'),
      title,
      findings: [{ message: expect.stringContaining('(level-end)') as unknown as string }],
    },
  ],
});

it('is not reported as unknown a second time', () => {
  const rules = findingsOf(code('CH-U-310772-BBBB1112'), title).map(({ rule }) => rule);
  expect(rules).toContain('unit-id/mistyped');
  expect(rules).not.toContain('unit-id/unknown');
});

describe('app IDs that are declared and come to nothing', () => {
  const main = 'app/src/main/AndroidManifest.xml';
  const missing = (files: Record<string, string>) =>
    findingsOf(files, kelp()).filter(({ rule, platform }) => rule === 'app-id/missing' && platform !== null);
  const withMetaData = (attributes: string) =>
    androidFiles({
      [main]: manifest(`        <meta-data android:name="example.cobaltheron.ads.APP_ID" ${attributes} />`),
    });
  const onIos = (settings: string, key = '$(HERON)') =>
    iosFiles({
      'Kelp.xcodeproj/project.pbxproj': pbxproj(settings, settings),
      'Kelp/Info.plist': plist(appIdKey(key)),
    });

  it.each([
    [
      'android:resource where the value belongs',
      withMetaData('android:resource="@string/heron"'),
      /given by android:resource/,
    ],
    ['no android:value', withMetaData(''), /has no value/],
    [
      'a string that nothing defines',
      withMetaData('android:value="@string/hreon"'),
      /no source set .* has a string hreon/,
    ],
    ['a build setting that nothing sets', onIos(''), /nothing in the tree sets \$\(HERON\)/],
  ])('%s', (_, files, message) => {
    const found = missing(files).filter((finding) => finding.message.match(message));
    expect(found).toHaveLength(1);
    expect(found[0]).toMatchObject({ severity: 'blocker', place: expect.any(Object) });
  });

  it.each([
    [
      'a script that is not in the tree may set the placeholder',
      {
        ...withMetaData('android:value="${heronId}"'),
        'app/build.gradle.kts': null,
        'app/build.gradle':
          "apply plugin: 'com.android.application'\napply from: 'https://brine.example/ids.gradle'\nandroid { namespace 'example.brine.kelp' }\n",
      },
    ],
    ['the value is there', androidFiles({ [main]: manifest(appIdMetaData('@string/heron')) })],
  ])('is not said where %s', (_, files) => {
    const whole = Object.fromEntries(Object.entries(files).filter((entry) => entry[1] !== null)) as Record<
      string,
      string
    >;
    expect(missing(whole).filter(({ message }) => /has no value|nothing/.test(message))).toEqual([]);
  });

  it('wiring puts the value where it belongs', () => {
    const { after } = holds(withMetaData('android:resource="@string/heron"'), kelp());
    expect(text(after[main])).toContain('android:value="@string/');
    expect(text(after[main])).not.toContain('android:resource');
  });
});

describe('how far texts are apart', () => {
  it('is what it is by the plain definition, up to the most that is asked', () => {
    const plain = (a: string, b: string): number =>
      a === '' || b === ''
        ? a.length + b.length
        : Math.min(
            plain(a.slice(1), b.slice(1)) + (a[0] === b[0] ? 0 : 1),
            plain(a.slice(1), b) + 1,
            plain(a, b.slice(1)) + 1,
          );
    const word = fc.string({ unit: fc.constantFrom('a', 'b', 'c'), maxLength: 5 });
    fc.assert(
      fc.property(word, word, fc.integer({ min: 0, max: 4 }), (a, b, most) => {
        const wanted = plain(a, b);
        expect(editsApart(a, b, most)).toBe(wanted <= most ? wanted : undefined);
      }),
    );
  });
});
