import { describe, expect, it } from 'vitest';
import { summaryOf, withAcceptances, type Acceptance } from '../../../src/core/checks/accepted.js';
import {
  breaksFile,
  byFile,
  mayBeInBrokenFile,
  mayBeInUnreadScript,
} from '../../../src/core/checks/broken-files.js';
import type { CheckContext, Finding, Report, Rule, RuleMeta } from '../../../src/core/checks/model.js';
import { runChecks } from '../../../src/core/checks/run.js';
import type { Survey } from '../../../src/core/facts/model.js';
import { kelp } from '../../support/titles.js';

type Problem = Survey['problems'][number];
const problem = (path: string, more: Partial<Problem> = {}): Problem => ({
  path,
  line: 1,
  column: 1,
  kind: 'syntax',
  message: 'It ends too early.',
  ...more,
});
const surveyOf = (more: Partial<Survey> = {}) =>
  ({ problems: [], stacks: [], unresolved: [], facts: [], editions: [], ...more }) as unknown as Survey;

const rule = (reports: readonly Report[] | (() => never), meta: Partial<RuleMeta> = {}): Rule => ({
  meta: {
    id: 'group/what',
    severity: 'warning',
    ifShipped: 'It breaks.',
    mend: 'Mend {name}.',
    otherMends: { other: 'Mend it otherwise in {title} for {platform}.' },
    messages: { said: '{name} is wrong.', timed: '{name} is wrong since {when}.' },
    needsTitle: false,
    ...meta,
  },
  run: () => (typeof reports === 'function' ? reports() : reports),
});
const report = (more: Partial<Report> = {}): Report => ({ message: 'said', data: { name: 'it' }, ...more });
const place = (path: string, line = 1, column = 1) => ({ path, line, column });

function checked(rules: Rule[], more: Partial<CheckContext> = {}): Finding[] {
  const context = {
    survey: surveyOf(),
    title: kelp(),
    titleId: 'kelp',
    profiles: [],
    inventories: [],
    now: '',
    ...more,
  } as unknown as CheckContext;
  return runChecks(context, rules).findings;
}

describe('a report becomes a finding', () => {
  it('with its texts filled in, and nothing where it says nothing', () => {
    expect(checked([rule([report()])])).toEqual([
      {
        rule: 'group/what',
        severity: 'warning',
        message: 'it is wrong.',
        mend: 'Mend it.',
        platform: null,
        module: null,
        variants: [],
        network: null,
        placement: null,
        place: null,
        chain: [],
        fingerprint: expect.stringMatching(/^[0-9a-f]{16}$/),
      },
    ]);
  });

  it('with another way to mend it, which names the title and the platform', () => {
    const mendOf = (more: Partial<Report>, context: Partial<CheckContext> = {}) =>
      checked([rule([report({ mend: 'other', ...more })])], context)[0]?.mend;
    expect(mendOf({ platform: 'ios' })).toBe('Mend it otherwise in kelp for ios.');
    expect(mendOf({}, { titleId: null })).toBe('Mend it otherwise in TITLE for PLATFORM.');
    expect(mendOf({ mend: 'no such way' })).toBe('Mend it.');
  });

  it('whose fingerprint is what it is about, not where it is or how it is said', () => {
    const of = (more: Partial<Report>, meta: Partial<RuleMeta> = {}) =>
      checked([rule([report(more)], meta)])[0]?.fingerprint;
    const base = of({ place: place('a.xml', 1) });
    expect(
      of({
        place: place('a.xml', 9, 4),
        variants: ['debug'],
        chain: [{ what: 'x', value: null, place: null }],
      }),
    ).toBe(base);
    expect(
      of({ place: place('a.xml') }, { messages: { said: 'Something else about {name}.' }, severity: 'note' }),
    ).toBe(base);
    const reasoned = (text: string) =>
      of({ place: place('a.xml', 1), data: { name: 'this', why: text, reason: text, fix: text } });
    expect(reasoned('It is so.')).toBe(reasoned('It is said otherwise.'));
    const timed = (when: string) => of({ message: 'timed', changing: { when } });
    expect(timed('today')).toBe(timed('tomorrow'));
    const others = [
      of({ place: place('b.xml') }),
      of({ place: place('a.xml'), data: { name: 'that' } }),
      of({ place: place('a.xml'), platform: 'ios' }),
      of({ place: place('a.xml'), module: 'app' }),
      of({ place: place('a.xml'), network: 'marlstone' }),
      of({ place: place('a.xml'), placement: 'footer' }),
      of({ place: place('a.xml') }, { id: 'group/other' }),
      of({ place: place('a.xml'), message: 'timed', changing: { when: 'x' } }),
    ];
    expect(new Set([base, ...others]).size).toBe(others.length + 1);
  });

  it('unless it names a text or a value that is not there: that is a fault of the rule', () => {
    expect(checked([rule([report({ message: 'unknown' })])])).toEqual([
      expect.objectContaining({
        rule: 'engine/rule-failed',
        severity: 'warning',
        message:
          'The rule group/what failed and checked nothing: The rule group/what has no message unknown.',
        fingerprint: 'engine-group/what',
      }),
    ]);
    expect(checked([rule([report({ data: {} })])])[0]?.message).toContain(
      'group/what lacks a value for {name}: {name} is wrong.',
    );
  });
});

describe('the rules', () => {
  it('go on when one of them fails', () => {
    const failing = rule(() => {
      throw new Error('no such file');
    });
    const found = checked([failing, rule([report()], { id: 'group/other' })]);
    expect(found.map((one) => one.rule)).toEqual(['engine/rule-failed', 'group/other']);
    expect(found[0]?.message).toContain('no such file');
  });

  it('that compare with a title are silent without one', () => {
    const needing = rule([report()], { needsTitle: true });
    expect(checked([needing], { title: null })).toEqual([]);
    expect(checked([needing])).toHaveLength(1);
  });

  it('are told by severity, then by file, line, rule and what they are about', () => {
    const found = checked([
      rule([report({ data: { name: 'z' } }), report({ place: place('b') })], { id: 'n/n', severity: 'note' }),
      rule(
        [
          report({ place: place('b', 2) }),
          report({ place: place('b', 10) }),
          report({ place: place('a', 30) }),
        ],
        { id: 'w/z' },
      ),
      rule([report({ place: place('b', 2) })], { id: 'w/a' }),
      rule([report()], { id: 'b/b', severity: 'blocker' }),
    ]);
    expect(found.map((one) => `${one.rule} ${one.place?.path ?? '-'} ${one.place?.line ?? 0}`)).toEqual([
      'b/b - 0',
      'w/z a 30',
      'w/a b 2',
      'w/z b 2',
      'w/z b 10',
      'n/n - 0',
      'n/n b 1',
    ]);
    const alike = ['c', 'a', 'b'].map((name) => report({ data: { name } }));
    const sorted = checked([rule(alike)]).map(({ fingerprint }) => fingerprint);
    expect(sorted).toEqual([...sorted].sort());
  });
});

describe('the same fault', () => {
  const chain = (what: string) => [{ what, value: null, place: null }];

  it('in several variants is one finding', () => {
    const found = checked([
      rule([
        report({ place: place('a'), variants: ['debug'], chain: chain('one') }),
        report({
          place: place('a'),
          variants: ['release', 'debug'],
          chain: [...chain('two'), ...chain('one')],
        }),
      ]),
    ]);
    expect(found).toHaveLength(1);
    expect(found[0]).toMatchObject({
      variants: ['debug', 'release'],
      chain: [...chain('one'), ...chain('two')],
    });
  });

  it('at several places of a file is several, told apart by their order', () => {
    const found = checked([rule([1, 2, 3].map((line) => report({ place: place('a', line) })))]);
    const [first = ''] = found.map(({ fingerprint }) => fingerprint);
    expect(found.map(({ fingerprint }) => fingerprint)).toEqual([first, `${first}-2`, `${first}-3`]);
  });

  it('of both platforms at one place is one of neither', () => {
    const on = (platform: 'android' | 'ios', more: Partial<Report> = {}) =>
      report({ platform, module: platform, variants: ['debug'], place: place('a'), ...more });
    expect(checked([rule([on('android'), on('ios')])])).toEqual([
      expect.objectContaining({
        rule: 'group/what',
        message: 'it is wrong.',
        platform: null,
        module: null,
        variants: [],
        place: place('a'),
      }),
    ]);
    const three = [on('android'), on('ios'), on('android', { variants: ['release'] })];
    expect(checked([rule(three)])).toHaveLength(1);
    expect(checked([rule([on('android'), on('android', { variants: ['release'] })])])).toEqual([
      expect.objectContaining({ platform: 'android', variants: ['debug', 'release'] }),
    ]);
    for (const other of [
      on('ios', { place: place('a', 2) }),
      on('ios', { place: place('a', 1, 2) }),
      on('ios', { place: place('b') }),
      on('ios', { data: { name: 'that' } }),
      on('ios', { network: 'marlstone' }),
      on('ios', { placement: 'footer' }),
      on('ios', { place: null }),
      { ...on('ios'), message: 'timed', changing: { when: 'x' } },
    ])
      expect(
        checked([rule([on('android'), other])])
          .map(({ platform }) => platform)
          .sort(),
      ).toEqual(['android', 'ios']);
  });
});

describe('where files are broken', () => {
  const broken = surveyOf({
    problems: [problem('android/app/src/main/AndroidManifest.xml')],
    stacks: [
      { stack: 'android', root: 'android', evidence: [] },
      { stack: 'ios', root: '', evidence: [] },
    ],
  });
  const found = (one: Partial<Report>, meta: Partial<RuleMeta> = {}, survey = broken) =>
    checked([rule([report(one)], meta)], { survey }).length;

  it('nothing else is said of the file', () => {
    const path = 'android/app/src/main/AndroidManifest.xml';
    expect(found({ place: place(path) })).toBe(0);
    expect(found({ place: place('android/app/build.gradle') })).toBe(1);
    expect(found({ place: place(path) }, { id: 'tree/broken-file' })).toBe(1);
    expect(
      found({ place: place(path) }, {}, surveyOf({ problems: [problem(path, { kind: 'not-read' })] })),
    ).toBe(1);
  });

  it('what is missing may be in them', () => {
    const absence = { isAbsence: true } as const;
    expect(found({ platform: 'android', place: place('android/app/build.gradle') }, absence)).toBe(0);
    expect(found({ platform: 'ios', place: place('android/app/x.swift') }, absence)).toBe(1);
    expect(found({ platform: 'android', place: place('other/app/build.gradle') }, absence)).toBe(1);
    expect(found({ platform: 'android' }, absence)).toBe(0);
    expect(found({}, absence)).toBe(0);
  });

  it('what is missing may be in a script that cannot be read', () => {
    const open = { cause: 'unread-script', platform: 'android', module: 'app', variants: ['debug'] };
    const survey = surveyOf({ unresolved: [open] as unknown as Survey['unresolved'] });
    const script = { isAbsence: true, mayBeInScript: true } as const;
    const one = { platform: 'android', module: 'app', variants: ['debug'] } as const;
    expect(found(one, script, survey)).toBe(0);
    expect(found(one, { isAbsence: true }, survey)).toBe(1);
    expect(found({ ...one, variants: ['debug', 'release'] }, script, survey)).toBe(1);
  });

  it.each([
    ['a.xml', 'syntax', true],
    ['Info.plist', 'syntax', true],
    ['project.pbxproj', 'not-text', true],
    ['libs.versions.toml', 'syntax', true],
    ['a.kt', 'syntax', false],
    ['a.kt', 'conflict', true],
    ['a.xml', 'not-read', false],
    ['a.xml.kt', 'syntax', false],
  ] as const)('build tools stop at %s (%s): %s', (path, kind, stops) => {
    expect(breaksFile(problem(path, { kind }))).toBe(stops);
  });

  it('each is told once, with how many more problems it has', () => {
    const [a, a2, b] = [problem('a'), problem('a', { line: 2 }), problem('b')];
    expect(byFile([a, b, a2])).toEqual([
      { first: a, more: 1 },
      { first: b, more: 0 },
    ]);
  });

  it.each([
    ['Kelp/Info.plist', 'android', false],
    ['Kelp/Info.plist', 'ios', true],
    ['app/AndroidManifest.xml', 'ios', false],
    ['app/AndroidManifest.xml', 'android', true],
    ['gradle/libs.versions.toml', 'ios', false],
    ['Podfile', 'android', false],
    ['Podfile', 'ios', true],
    ['lib/main.dart', 'ios', true],
    ['lib/main.dart', 'android', true],
    ['lib/main.dart', null, true],
  ] as const)('%s may hold what is missing on %s: %s', (path, platform, may) => {
    const survey = surveyOf({ problems: [problem(path, { kind: 'conflict' })] });
    expect(mayBeInBrokenFile(survey, { platform, path: undefined })).toBe(may);
  });

  it('they count for the project that they are in, the innermost', () => {
    const stacks = ['', 'apps/kelp'].map((root) => ({ stack: 'android', root, evidence: [] }));
    const survey = surveyOf({ problems: [problem('apps/kelp/a.xml')], stacks });
    expect(mayBeInBrokenFile(survey, { platform: null, path: 'apps/kelp/b.xml' })).toBe(true);
    expect(mayBeInBrokenFile(survey, { platform: null, path: 'apps/other/b.xml' })).toBe(false);
    expect(
      mayBeInBrokenFile({ ...survey, problems: [problem('a.kt')] }, { platform: null, path: 'a.xml' }),
    ).toBe(false);
  });

  it('an unread script counts for its platform, module and variants', () => {
    const open = [
      { cause: 'unread-script', platform: 'android', module: 'app', variants: ['debug'] },
      { cause: 'unread-script', platform: 'android', module: 'lib', variants: ['release'] },
      { cause: 'undefined', platform: 'android', module: 'app', variants: ['release'] },
    ];
    const survey = surveyOf({ unresolved: open as unknown as Survey['unresolved'] });
    const may = (more: Parameters<typeof mayBeInUnreadScript>[1]) => mayBeInUnreadScript(survey, more);
    expect(may({ platform: 'android', module: 'app', variants: ['debug'] })).toBe(true);
    expect(may({ platform: 'android', module: 'app', variants: ['release'] })).toBe(false);
    expect(may({ platform: 'android', module: null, variants: ['debug', 'release'] })).toBe(true);
    expect(may({ platform: 'ios', module: 'app', variants: ['debug'] })).toBe(false);
    expect(may({ platform: 'android', module: 'app' })).toBe(true);
    expect(may({ platform: 'android', module: 'other' })).toBe(false);
  });
});

describe('findings that somebody accepts', () => {
  const finding = (fingerprint: string, severity: Finding['severity'] = 'warning') =>
    ({ fingerprint, severity }) as Finding;
  const until = (day: string, fingerprint = 'one'): Acceptance => ({
    fingerprint,
    rule: 'group/what',
    message: '',
    reason: 'known',
    until: day,
    who: 'ana',
    at: '2026-01-01T00:00:00Z',
  });
  const now = '2026-06-01T23:59:59Z';

  it('are marked, up to the last day', () => {
    const marked = (day: string) => withAcceptances([finding('one'), finding('two')], [until(day)], now);
    const accepted = { reason: 'known', until: '2026-06-01', who: 'ana', ended: false };
    expect(marked('2026-06-01')).toEqual([{ ...finding('one'), accepted }, finding('two')]);
    expect(marked('2026-06-02')[0]?.accepted?.ended).toBe(false);
    expect(marked('2026-05-31')[0]?.accepted?.ended).toBe(true);
  });

  it('are not counted until their day is past', () => {
    const all = [
      finding('one', 'blocker'),
      finding('two', 'blocker'),
      finding('three'),
      finding('four', 'note'),
    ];
    expect(summaryOf(all)).toEqual({ blocker: 2, warning: 1, note: 1, accepted: 0 });
    const marked = withAcceptances(
      all,
      [until('2026-06-01'), until('2026-05-01', 'two'), until('2027-01-01', 'three')],
      now,
    );
    expect(summaryOf(marked)).toEqual({ blocker: 1, warning: 0, note: 1, accepted: 2 });
  });
});
