import { describe, expect, it } from 'vitest';
import type { Paint } from '../../src/cli/io.js';
import { boardText } from '../../src/cli/render/board.js';
import { checkText } from '../../src/cli/render/check.js';
import { idTraceText } from '../../src/cli/render/id-trace.js';
import { surveyText } from '../../src/cli/render/survey.js';
import { playText, tagLintText, tagText } from '../../src/cli/render/tag.js';
import { compareText, figuresText } from '../../src/cli/render/tally.js';
import { placebookText, undoText, writesText } from '../../src/cli/render/undo.js';
import { weekLines } from '../../src/cli/render/week.js';
import { byHandLines, colouredPatch, folded } from '../../src/cli/render/wire.js';

/** Paint that shows, so that a colour in the wrong place does. */
const colours = ['bold', 'dim', 'red', 'green', 'yellow', 'blue', 'cyan'] as const;
const paint = Object.fromEntries(
  colours.map((name) => [name, (text: string) => `${name}(${text})`]),
) as unknown as Paint;
const plain = Object.fromEntries(colours.map((name) => [name, (text: string) => text])) as unknown as Paint;

/** Compares with the file of what is rendered; `-u` writes it anew. */
const same = (name: string, ...texts: readonly (string | readonly string[])[]) =>
  expect(
    texts
      .map((text) => (typeof text === 'string' ? text : text.join('\n')).trimEnd())
      .join('\n\n========\n\n'),
  ).toMatchFileSnapshot(`rendered/${name}.txt`);

/** Only what is rendered is given: the rest of an answer does not matter here. */
const given = <Value>(value: unknown) => value as Value;
const place = { path: 'app/a.xml', line: 3, column: 9 };

describe('tags', () => {
  const document = (more: object = {}) => ({
    url: 'https://ads.reef.example/1',
    depth: 0,
    version: '4.2',
    redirects: 0,
    ms: null,
    failed: null,
    ads: 1,
    problems: [],
    ...more,
  });
  const file = { url: 'https://cdn.reef.example/f.mp4', type: 'video/mp4', width: 640, height: 360 };
  const ad = (more: object = {}) => ({
    id: 'a1',
    title: 'Kelp',
    systems: ['Exchange', '', 'Reef'],
    duration: 15_000,
    skip: null,
    choice: { file: { ...file, bitrate: 800 }, why: 'closest', passed: [] },
    impressions: 1,
    quartiles: { start: 1, firstQuartile: 1, midpoint: 1, thirdQuartile: 1, complete: 1 },
    clickThrough: 'https://kelp.example',
    clickTracking: 2,
    companions: [],
    verifications: [],
    interactive: 0,
    ...more,
  });
  const report = (more: object = {}) =>
    given<Parameters<typeof tagText>[0]>({
      documents: [document()],
      ads: [ad()],
      deadEnds: [],
      insecure: [],
      macros: { unfilled: [], withoutValue: [] },
      ...more,
    });
  const problem = (more: object = {}) => ({
    severity: 'error',
    line: 2,
    column: 5,
    message: 'It is wrong.',
    fix: 'Correct it.',
    ...more,
  });

  it('that show an ad, or several through wrappers', () =>
    same(
      'tags',
      tagText(report(), paint, 80),
      tagText(
        report({
          documents: [
            document({ version: null, redirects: 2, ms: 40, ads: 0 }),
            document({ depth: 1, failed: 'timed-out', problems: [problem({ section: '3.4' })] }),
            document({ depth: 3, ads: 2, problems: [problem({ severity: 'warning' })] }),
          ],
          ads: [
            ad({
              title: '',
              id: null,
              skip: 5_250,
              choice: {
                file,
                why: 'smallest',
                passed: [{ url: 'https://cdn.reef.example/g', why: 'too big' }],
              },
              quartiles: { start: 0, firstQuartile: 0, midpoint: 1, thirdQuartile: 0, complete: 0 },
              clickThrough: null,
              companions: [
                { width: 300, height: 250, resource: null },
                { width: 320, height: 50, resource: { kind: 'html', value: '<b/>' } },
                {
                  width: 1,
                  height: 2,
                  resource: { kind: 'static', value: 'https://cdn.reef.example/c.png' },
                },
              ],
              verifications: [
                { vendor: '', scripts: ['https://one.example', 'https://two.example'] },
                { vendor: 'meter.example', scripts: [] },
              ],
              interactive: 1,
            }),
            ad({
              title: '',
              duration: null,
              choice: { file: null, why: 'no file', passed: [] },
              quartiles: { start: 0, firstQuartile: 0, midpoint: 0, thirdQuartile: 0, complete: 0 },
            }),
          ],
          deadEnds: [
            { code: 301, why: 'It timed out.', fix: 'Try again.', step: 1, place },
            { code: 303, why: 'No ad.', fix: 'Ask the network.', step: 2 },
          ],
        }),
        paint,
        80,
      ),
      tagText(
        report({
          documents: [document({ url: `https://ads.reef.example/${'x'.repeat(36)}`, problems: [problem()] })],
          ads: [],
          insecure: ['image', 'click', 'click', 'image', 'media', 'media'].map((what, at) => ({
            what,
            url: `http://${at}.example`,
          })),
          macros: {
            unfilled: [
              { macro: '[NOSUCH]', what: 'impression' },
              { macro: '[NOSUCH]', what: 'impression' },
              { macro: '[OTHER]', what: 'click' },
            ],
            withoutValue: ['[DOMAIN]', '[PAGEURL]'],
          },
        }),
        paint,
        80,
      ),
      tagText(
        report({
          documents: [document({ url: `https://ads.reef.example/${'x'.repeat(35)}`, problems: [problem()] })],
          insecure: [{ what: 'image', url: 'http://0.example' }],
        }),
        paint,
        80,
      ),
    ));

  it('that are played, with calls made or not', () => {
    const line = (more: object) => ({ at: 0, ad: 1, what: 'event', name: 'start', calls: [], ...more });
    const lines = [
      line({ calls: ['https://reef.example/s'] }),
      line({ at: 2_500, what: 'error', name: 'failed', code: 405, calls: ['https://reef.example/e'] }),
      line({ at: 3_000, what: 'ignored', name: 'skip', note: 'This ad cannot be skipped.' }),
      line({ at: 4_000, what: 'stuck', name: 'paused', ad: null }),
      line({ at: 5_000, what: 'content', name: 'content', ad: null, code: 901, note: 'Its own note.' }),
    ];
    const played = (ads: number) =>
      given<Parameters<typeof playText>[0]>({ lines, report: { ads: Array.from({ length: ads }) } });
    const outcomes = ['200', '302', '2000', 'x200', 'skipped: the host', '404'];
    return same(
      'tags-played',
      playText(played(1), [], paint),
      playText(
        played(2),
        outcomes.map((outcome, at) => ({ outcome, url: `https://reef.example/${at}` })),
        paint,
      ),
    );
  });

  it('on record, with what is wrong', () => {
    const one = (placement: string, problems: object[], stage = 'test') => ({
      title: 'kelp',
      placement,
      platform: 'ios',
      stage,
      url: `https://reef.example/${placement}`,
      problems,
    });
    const shown = (...tags: object[]) => tagLintText(given<Parameters<typeof tagLintText>[0]>(tags), paint);
    return same(
      'tags-linted',
      shown(),
      shown(one('a', []), one('b', [])),
      shown(
        one('a', []),
        one('b', [problem(), problem({ severity: 'warning' })], 'production'),
        one('c', [problem()]),
      ),
    );
  });
});

it('what wiring leaves, and diffs', () => {
  const step = (more: object) => ({
    platform: null,
    what: 'Do it.',
    why: 'It is open.',
    where: null,
    ...more,
  });
  const steps = given<Parameters<typeof byHandLines>[0]>([
    step({ platform: 'ios', where: 'a.plist:3' }),
    step({
      platform: 'android',
      why: 'It is open elsewhere, and the reason is longer than one line of this view.',
    }),
    step({ where: 'b.xml' }),
    step({ what: 'Do another thing, whose description does not fit into one line of this view either.' }),
  ]);
  const added = (lines: number) =>
    `diff --git a/n b/n\nnew file mode 100644\n--- /dev/null\n+++ b/n\n${'+x\n'.repeat(lines)}`;
  const changed = `diff --git a/o b/o\n--- a/o\n+++ b/o\n@@ -1,2 +1,2 @@\n same\n-old\n+new\n${' same\n'.repeat(50)}`;
  return same(
    'wiring',
    [...byHandLines([], paint, 60), ...byHandLines(steps, paint, 60)],
    colouredPatch(folded(added(3) + changed + added(35)), paint),
    folded(added(36)),
    folded(added(37)),
  );
});

describe('a board', () => {
  const cell = (platform: string, stage: string, more: object = {}) => ({
    platform,
    stage,
    id: 'CH-1',
    record: 'set',
    build: 'agrees',
    found: [],
    left: null,
    rehearsed: null,
    ...more,
  });
  const cells = (more: object = {}) =>
    ['android', 'ios'].flatMap((platform) =>
      ['test', 'production'].map((stage) => cell(platform, stage, more)),
    );
  const row = (placement: string | null, more: object = {}) => ({
    placement,
    label: placement ?? 'app ID',
    network: 'cobalt-heron',
    networkName: 'Cobalt Heron',
    format: placement === null ? null : 'banner',
    cells: cells(),
    ...more,
  });
  const edition = (platform: string, more: object = {}) => ({
    platform,
    identifier: 'example.kelp',
    found: 'example.kelp',
    tree: 'kelp',
    summary: { blocker: 0, warning: 2, note: 1 },
    ...more,
  });
  const board = (more: object = {}) =>
    given<Parameters<typeof boardText>[0]>({
      name: 'Kelp',
      good: true,
      editions: [edition('android'), edition('ios')],
      rows: [row(null), row('footer')],
      ...more,
    });
  const seen = (more: object) => ({ is: 'shown', text: 'test ad shown', old: false, ...more });
  const week = ['android', 'ios', null].map((platform, at) => ({
    placement: 'footer',
    network: 'cobalt-heron',
    platform,
    currency: 'EUR',
    revenue: [1, 2, 3, 4, 5, 6, 7].map((day) => day * 1_000_000 * (at + 1)),
  }));

  it.each([120, 160, 99, 100])('that is %d wide', (width) =>
    same(
      `board-${width}`,
      boardText(
        board({
          rows: [
            row(null),
            row('footer', { cells: cells({ rehearsed: seen({}) }) }),
            row('page', {
              format: null,
              cells: [
                cell('android', 'test', { id: null, record: 'hole', build: 'none' }),
                cell('android', 'production', { build: 'differs', rehearsed: seen({ old: true }) }),
                cell('ios', 'test', { rehearsed: seen({ is: 'no-ad', text: 'no ad' }) }),
                cell('ios', 'production', { build: 'unread' }),
              ],
            }),
          ],
        }),
        paint,
        {
          width,
          week: given<Parameters<typeof boardText>[2]['week']>([
            ...week,
            { ...week[0], placement: 'page' },
            { ...week[0], network: 'marlstone' },
          ]),
        },
      ),
    ),
  );

  it('that is not good, or empty', () =>
    same(
      'board-open',
      boardText(
        board({
          good: false,
          rows: [],
          editions: [
            edition('android', { found: 'example.other', summary: { blocker: 2, warning: 0, note: 0 } }),
            edition('ios', { found: null, tree: null, summary: null }),
          ],
        }),
        paint,
        { width: 100, week: [] },
      ),
      weekLines(
        given<Parameters<typeof weekLines>[0]>([
          { currency: 'EUR', revenue: [0, 0, 0, 0, 0, 9_999_999, 0] },
          { currency: 'USD', revenue: [1_000_000_000, 234_500_000] },
          { currency: 'USD', revenue: [1_000_000, 500_000] },
        ]),
      ),
    ));
});

it('a survey', () => {
  const fact = (more: object = {}) => ({
    kind: 'app-id',
    network: 'cobalt-heron',
    platform: 'android',
    module: 'app',
    variants: ['debug', 'release'],
    name: 'example.KEY',
    value: 'CH-A-1',
    carrier: 'manifest',
    effective: true,
    place,
    chain: [
      { what: 'manifest', value: 'CH-A-1', place },
      { what: 'string heron', value: null, place: { ...place, line: 8 } },
    ],
    ...more,
  });
  const shown = (more: object = {}) =>
    surveyText(
      given<Parameters<typeof surveyText>[0]>({
        tree: 'kelp',
        title: null,
        stacks: [],
        passedOver: [],
        editions: [],
        facts: [],
        unresolved: [],
        problems: [],
        ...more,
      }),
      paint,
    );
  const variants = [
    { name: 'debug', stage: 'test' },
    { name: 'release', stage: null },
  ];
  return same(
    'survey',
    shown(),
    shown({
      title: 'kelp',
      stacks: [
        { stack: 'android', root: '', evidence: ['one', 'two'] },
        { stack: 'ios', root: 'ios', evidence: [] },
      ],
      passedOver: [
        { root: '', why: 'an example' },
        { root: 'lib', why: 'a library' },
      ],
      editions: [
        { platform: 'android', module: 'app', identifier: 'example.kelp', variants },
        { platform: 'ios', module: 'Kelp', identifier: null, variants: variants.slice(0, 1) },
      ],
      facts: [
        fact(),
        fact({
          kind: 'unit-id',
          variants: ['debug'],
          value: `${'x'.repeat(61)}`,
          carrier: 'code',
          chain: [],
        }),
        fact({ kind: 'unit-id', value: 'x'.repeat(60), placement: 'footer', carrier: 'code', chain: [] }),
        fact({ kind: 'permission', network: null, value: 'example.KEY', chain: [] }),
        fact({ kind: 'min-sdk', network: null, value: ' 24', chain: [] }),
        fact({ module: 'wear' }),
        fact({ platform: 'ios', module: 'Kelp', variants: ['debug'] }),
      ],
      unresolved: [
        { what: 'the app ID', reason: 'it is computed', platform: 'android', module: 'app' },
        { what: 'a level', reason: 'nothing sets it', platform: 'ios', module: 'Other' },
      ].map((one) => ({ ...one, variants: ['debug', 'release'], place, chain: fact().chain })),
      problems: [{ path: 'a.xml', line: 1, column: 2, message: 'It is broken.' }],
    }),
  );
});

it('a check', () => {
  const finding = (more: object = {}) => ({
    rule: 'app-id/missing',
    severity: 'blocker',
    message: 'The app ID is missing.',
    mend: 'Declare it.',
    fingerprint: '0123456789abcdef',
    platform: 'android',
    variants: ['debug', 'release'],
    place,
    chain: [
      { what: 'manifest', value: null, place },
      { what: 'placeholder', value: 'x', place },
    ],
    ...more,
  });
  const accepted = { until: '2026-01-02', who: 'ann', reason: 'It is known.' };
  const all = [
    finding({ fix: { edits: [], content: [] } }),
    finding({ severity: 'warning', message: 'The app ID is missing in b.', place: null, variants: [] }),
    finding({ severity: 'note', platform: null, variants: [], mend: 'Look at it.', place: null }),
    finding({ severity: 'warning', rule: 'unit-id/unknown', accepted: { ...accepted, ended: true } }),
    finding({ rule: 'code/never-started', accepted: { ...accepted, ended: false } }),
  ];
  const shown = (more: object, view: object = {}, with_ = paint) =>
    checkText(
      given<Parameters<typeof checkText>[0]>({
        title: 'kelp',
        summary: { blocker: 1, warning: 2, note: 1 },
        findings: all,
        snapshot: 'abcdef0123456789',
        ...more,
      }),
      with_,
      { width: 70, directory: 'kelp', verbose: false, anyTitle: false, ...view },
    );
  return same(
    'check',
    shown({}),
    shown({}, { verbose: true }),
    shown(
      { findings: all.slice(1, 3), summary: { blocker: 0, warning: 1, note: 1 }, leftOut: 3, title: null },
      { anyTitle: true },
    ),
    shown({ findings: all.slice(2, 3), summary: { blocker: 0, warning: 0, note: 1 }, snapshot: undefined }),
    shown({ findings: all.slice(0, 1), summary: { blocker: 1, warning: 0, note: 0 } }, {}, plain),
    shown({ findings: [], against: { snapshot: 'fedcba9876543210', known: 4 } }),
    shown({ findings: all.slice(4) }),
    shown({ findings: [], compared: 'no-title', title: null }),
    shown({ findings: [], compared: 'no-title', title: null }, { anyTitle: true }),
    shown({
      findings: ['a', 'b'].map((name) => finding({ message: `Nothing sets ${name.repeat(60)} here.` })),
    }),
  );
});

it('the trace of an ID', () => {
  const shown = (more: object) =>
    idTraceText(
      given<Parameters<typeof idTraceText>[0]>({
        id: 'CH-A-1',
        is: [],
        record: [],
        builds: [],
        listed: [],
        changes: [],
        earned: [],
        ...more,
      }),
      paint,
    );
  const earned = {
    network: 'Marlstone',
    from: '2026-01-01',
    to: '2026-01-28',
    currency: 'EUR',
    revenue: 1_500_000,
  };
  return same(
    'id-trace',
    shown({}),
    shown({
      is: [
        { networkName: 'Cobalt Heron', label: 'app ID', platform: 'ios', sample: null },
        { networkName: 'Marlstone', label: 'unit', platform: null, sample: 'banner' },
      ],
      record: [
        { title: 'kelp', network: 'cobalt-heron', placement: null, platform: 'android', stage: 'test' },
        { title: 'moss', network: 'marlstone', placement: 'footer', platform: 'ios', stage: 'production' },
      ],
      builds: [
        { tree: 'kelp', place, variants: ['debug', 'release'] },
        { tree: 'moss', place, variants: [] },
      ],
      listed: [
        { network: 'Marlstone', name: 'Footer', readAt: '2026-01-02T03:04:05Z', unit: null },
        {
          network: 'Marlstone',
          name: 'Page',
          readAt: '2026-01-02T03:04:05Z',
          unit: { format: 'banner', platform: null, status: 'active' },
        },
      ],
      changes: [
        { at: '2026-01-02T03:04:05Z', who: 'ann', path: 'networks.x', did: 'set' },
        { at: '2026-01-03T03:04:05Z', who: 'ben', path: 'networks.x', did: 'removed' },
      ],
      earned: [
        { ...earned, requests: 12_000, impressions: 3_000 },
        { ...earned, requests: null, impressions: 5 },
      ],
    }),
  );
});

describe('daily numbers', () => {
  const days = { from: '2026-01-01', to: '2026-01-07' };
  const figures = (more: object = {}) => ({
    currency: 'EUR',
    requests: 12_000,
    matched: 9_000,
    fillRate: 0.75,
    impressions: 6_000,
    showRate: 0.5,
    clicks: 60,
    clickRate: 0.01,
    revenue: 12_340_000,
    ecpm: 2_056_000,
    share: 0.5,
    ...more,
  });
  const none = {
    requests: null,
    fillRate: null,
    showRate: null,
    clicks: null,
    clickRate: null,
    ecpm: null,
    share: null,
  };
  const answer = (by: string, keys: readonly (string | readonly [string, string])[], more: object = {}) =>
    given<Parameters<typeof figuresText>[0]>({
      by,
      days,
      rows: keys.map((key, at) => ({
        ...figures(at === 0 ? {} : none),
        key: typeof key === 'string' ? key : key[0],
        unit: typeof key === 'string' ? null : key[1],
      })),
      totals: [figures()],
      daily: [{ day: '2026-01-03', currency: 'EUR', revenue: 5_000_000 }],
      zones: [],
      unconverted: [],
      in: null,
      ...more,
    });
  const shown = (...of: Parameters<typeof answer>) =>
    figuresText(answer(...of), paint, { width: 100, subject: 'Kelp' });

  it('by what they are of', () =>
    same(
      'tally',
      shown('placement', ['footer', ['Marlstone: mrl-1', 'mrl-1'], '']),
      shown('platform', ['android', 'other']),
      shown('release', ['2026-01-02 ios 3.2 kelp', '0000-00-00 android', '0000-00-00 ios kelp', '']),
      shown('day', ['2026-01-02'], {
        in: 'USD',
        zones: [
          { network: 'Marlstone', zone: 'UTC' },
          { network: 'Quincebury', zone: 'UTC' },
          { network: 'Ferrowick', zone: 'Europe/Lisbon' },
        ],
        unconverted: [
          { currency: 'GBP', days: 1 },
          { currency: 'SEK', days: 3 },
        ],
      }),
      shown('placement', [], { days: null }),
      figuresText(answer('placement', ['footer']), plain, { width: 50, subject: 'Kelp' }),
    ));

  it('compared', () => {
    const change = (more: object = {}) => ({
      currency: 'EUR',
      before: 2_000_000,
      after: 3_000_000,
      revenue: 1_000_000,
      volume: 1_500_000,
      fill: -500_000,
      price: 0,
      ...more,
    });
    const row = (more: object) => ({
      ...change(),
      title: 'kelp',
      placement: 'footer',
      network: 'Marlstone',
      platform: 'ios',
      unit: 'mrl-1',
      ...more,
    });
    const compared = (more: object) =>
      compareText(
        given<Parameters<typeof compareText>[0]>({
          title: 'kelp',
          days,
          against: { from: '2025-12-25', to: '2025-12-31' },
          rows: [row({}), row({ placement: null, platform: null }), row({ currency: 'USD' })],
          totals: [change(), change({ currency: 'USD', revenue: 1, before: 0 })],
          zones: [],
          unconverted: [],
          in: null,
          ...more,
        }),
        paint,
        { width: 120, subject: 'Kelp' },
      );
    return same(
      'tally-compared',
      compared({}),
      compared({ title: null, rows: [row({}), row({ title: null })], totals: [change()] }),
      compared({ days: null }),
      compared({ against: null }),
    );
  });
});

it('writes and placebooks', () => {
  const entry = (what: string) => ({
    what,
    title: 'kelp',
    at: '2026-01-02T03:04:05Z',
    files: [
      { path: 'a', change: 'new' },
      { path: 'b', change: 'changed' },
      { path: 'c', change: 'removed' },
    ],
  });
  const entries = given<Parameters<typeof writesText>[0]>([entry('wire'), entry('unwire marlstone')]);
  return same(
    'writes',
    writesText([], 'kelp', paint),
    writesText(entries, 'kelp', paint),
    undoText(entries[0]!, paint),
    placebookText([], 'syndexa wire kelp', paint),
    placebookText(
      [
        { path: 'a', state: 'missing' },
        { path: 'b', state: 'out of date' },
      ],
      'syndexa wire kelp',
      paint,
    ),
  );
});
