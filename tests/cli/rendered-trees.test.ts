import { it } from 'vitest';
import type { Io } from '../../src/cli/io.js';
import { checkText } from '../../src/cli/render/check.js';
import { rehearsalText } from '../../src/cli/render/rehearsal.js';
import { surveyText } from '../../src/cli/render/survey.js';
import { placebookText, undoText, writesText } from '../../src/cli/render/undo.js';
import { byHandLines, colouredPatch, folded, writeWiring } from '../../src/cli/render/wire.js';
import { recorder } from '../support/recorder.js';
import { given, paint, place, plain, same } from '../support/rendered.js';

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

it('a wiring', () => {
  const edit = (path: string, more: object = {}) => ({
    path,
    before: 'x',
    remove: false,
    source: null,
    ...more,
  });
  const group = (id: string, paths: string[], rules: string[] = []) => ({ id, paths, rules });
  const patch =
    'diff --git a/c.xml b/c.xml\n--- a/c.xml\n+++ b/c.xml\n@@ -1 +1 @@\n-old\n+new\n' +
    `diff --git a/n b/n\nnew file mode 100644\n--- /dev/null\n+++ b/n\n${'+x\n'.repeat(50)}`;
  const wiring = (more: object = {}) =>
    given<Parameters<typeof writeWiring>[1]>({
      edits: [
        edit('c.xml'),
        edit('n', { before: null }),
        edit('gone.xml', { remove: true }),
        edit('libs/reef.aar', { before: null, source: { name: 'reef.aar', sha256: 'abcdef01'.repeat(8) } }),
      ],
      groups: [
        group('android/cobalt-heron/app-id', ['c.xml', 'n'], ['app-id/missing', 'app-id/malformed']),
        group('ios/all/call-sites/app', ['c.xml']),
        group('desktop/reef/ids', ['gone.xml'], ['unit-id/unknown']),
      ],
      patch,
      byHand: [],
      ...more,
    });
  const left = [{ platform: null, what: 'Do it.', why: 'It is open.', where: null }];
  const shown = (more: object, io: Partial<Io> = {}, full = false, with_ = paint) => {
    const out = recorder({ width: 64, ...io });
    out.raw = (text) => void (out.text += `exactly:\n${text}`);
    writeWiring(out, wiring(more), with_, full);
    return out.text;
  };
  return same(
    'wiring-whole',
    shown({}),
    shown({ byHand: left }, {}, true),
    shown({ edits: [], patch: '' }),
    shown({ edits: [], patch: '', byHand: left }),
    shown({ edits: [], patch: '', byHand: left, compared: 'no-title' }),
    // Into a pipe, a patch is passed on as it is; at a terminal without colours it is printed.
    shown({ edits: [edit('c.xml')], groups: [] }, {}, true, plain),
    shown({ edits: [edit('c.xml')], groups: [] }, { read: true }, false, plain),
  );
});

it('a rehearsal', () => {
  const network = (name: string, verdict: object, assumed: string[] = []) => ({
    network: name,
    unit: null,
    verdict,
    assumed,
  });
  const tested = { is: 'shown', after: 1_250, test: true };
  const earns = { is: 'shown', after: 300, test: false };
  const placement = (name: string, verdict: object, networks = [network('reef', verdict)]) => ({
    placement: name,
    format: 'banner',
    screen: null,
    banner: null,
    verdict,
    networks,
  });
  const run = (variant: string, more: object = {}) => ({
    platform: 'android',
    module: 'app',
    variant,
    stage: 'test',
    placements: [placement('footer', tested)],
    ...more,
  });
  const events = [
    { at: 0, what: 'launch' },
    { at: 65_540, what: 'load', placement: 'footer' },
    { at: 125_000, what: 'request', network: 'Reef', placement: 'footer', assumed: 'the timeout' },
    { at: 3_600_000, what: 'started', network: 'Reef' },
  ];
  const mixed = [
    placement('footer', tested),
    placement('page', earns, [network('reef', { is: 'no-ad' }), network('marlstone', earns, ['a timeout'])]),
    placement('prize', { is: 'refused', text: 'The unit is paused.' }),
    placement('list', { is: 'never-requested' }, []),
  ];
  const finding = {
    rule: 'rehearsal/refused',
    severity: 'warning',
    message: 'The unit is refused.',
    mend: 'Wait.',
    fingerprint: '0123456789abcdef',
    platform: 'android',
    variants: ['debug'],
    place,
    chain: [],
  };
  const shown = (more: object) =>
    rehearsalText(
      given<Parameters<typeof rehearsalText>[0]>({
        title: 'kelp',
        scenario: 'first-session',
        seed: 3,
        partner: 'running',
        runs: [run('debug'), run('staging'), run('release', { stage: 'production', placements: mixed })],
        findings: [],
        clean: false,
        ...more,
      }),
      paint,
      { width: 90, directory: './kelp' },
    );
  return same(
    'rehearsal',
    shown({}),
    shown({ partner: 'started', runs: [run('debug')], clean: true }),
    shown({ findings: [finding, finding], runs: [run('debug', { placements: mixed })] }),
    // Variants that differ in anything are shown apart.
    shown({
      runs: [
        run('debug', { trace: events, cut: 12 }),
        run('staging', { trace: events.slice(0, 1) }),
        run('Debug', { platform: 'ios' }),
        run('debug', { module: 'wear' }),
        run('debug', { stage: 'production' }),
        run('nightly', { placements: [placement('footer', earns)] }),
        run('weekly', { placements: [placement('header', earns)] }),
        run('debug', { placements: [] }),
      ],
    }),
  );
});
