import { describe, it } from 'vitest';
import { boardText } from '../../src/cli/render/board.js';
import { idTraceText } from '../../src/cli/render/id-trace.js';
import { playText, tagLintText, tagText } from '../../src/cli/render/tag.js';
import { weekLines } from '../../src/cli/render/week.js';
import { given, paint, place, same } from '../support/rendered.js';

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
