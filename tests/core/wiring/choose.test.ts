import { describe, expect, it } from 'vitest';
import type { Finding } from '../../../src/core/checks/model.js';
import type { Change, Topic } from '../../../src/core/edits/model.js';
import { chosen, groupOf, narrowed, type Trial } from '../../../src/core/wiring/choose.js';
import { profiles } from '../../support/titles.js';

const change = (name: string, more: Partial<Change> = {}): Change =>
  ({
    kind: 'create',
    path: name,
    platform: 'android',
    network: 'cobalt-heron',
    topic: 'app-id' as Topic,
    rules: [],
    content: '',
    ...more,
  }) as Change;
const finding = (rule: string, fingerprint = rule, platform: Finding['platform'] = null) =>
  ({ rule, fingerprint, platform }) as Finding;

/** A trial that leaves the findings which the changes do not say they fix, and those that some change causes. */
const leaving =
  (findings: readonly Finding[], causes: (paths: readonly string[]) => Finding[] = () => []) =>
  (changes: readonly Change[]): Trial => ({
    outcomes: changes.map((one) => ({ path: one.path }) as Trial['outcomes'][number]),
    remaining: [
      ...findings.filter(({ rule }) => !changes.some(({ rules }) => rules.includes(rule))),
      ...causes(changes.map(({ path }) => path)),
    ],
  });
const pathsOf = ({ outcomes }: Trial) => outcomes.map(({ path }) => path);

describe('the profiles of a choice', () => {
  it('are those of the named networks, or all', () => {
    expect(chosen(profiles, ['marlstone', 'no-such']).map(({ id }) => id)).toEqual(['marlstone']);
    expect(chosen(profiles, [])).toEqual(profiles);
    expect(chosen(profiles)).toEqual(profiles);
  });
});

describe('the group of a change', () => {
  it('is its platform, network and topic', () => {
    expect(groupOf(change('a'))).toBe('android/cobalt-heron/app-id');
    expect(groupOf(change('a', { network: null, platform: 'ios' }))).toBe('ios/all/app-id');
  });
});

describe('the changes of a choice', () => {
  const all = [
    change('id', { rules: ['app-id/missing'] }),
    change('sdk', { topic: 'dependency', rules: ['build/dependency-missing'] }),
    change('debug', { variants: ['debug'] }),
    change('paid', { variants: ['paidDebug', 'paidRelease'] }),
  ];
  const tried = (choice: Parameters<typeof narrowed>[1]) => pathsOf(narrowed(all, choice, [], leaving([])));

  it('are all when nothing is chosen', () => {
    expect(tried({})).toEqual(['id', 'sdk', 'debug', 'paid']);
  });

  it('are those of the named groups', () => {
    expect(tried({ groups: ['android/cobalt-heron/dependency'] })).toEqual(['sdk']);
    expect(tried({ groups: ['ios/cobalt-heron/dependency'] })).toEqual([]);
  });

  it('are those of the named variants, whatever their case, and those of all variants', () => {
    expect(tried({ variants: ['Debug'] })).toEqual(['id', 'sdk', 'debug']);
    expect(tried({ variants: ['PAIDRELEASE'] })).toEqual(['id', 'sdk', 'paid']);
    expect(tried({ variants: ['free'] })).toEqual(['id', 'sdk']);
  });

  it('are none when no change fixes the rules', () => {
    expect(tried({ rules: ['unit-id/not-in-build'] })).toEqual([]);
  });
});

describe('the changes for a rule', () => {
  const rule = 'app-id/missing';
  const all = [
    change('id', { rules: ['other', rule] }),
    change('beside'),
    change('elsewhere', { topic: 'dependency' }),
  ];
  const findings = [finding(rule)];

  it('are the ones that say they fix it', () => {
    expect(pathsOf(narrowed(all, { rules: [rule] }, findings, leaving(findings)))).toEqual(['id']);
  });

  it('are those for the platforms that have such findings', () => {
    const both = [
      change('android', { rules: [rule] }),
      change('ios', { platform: 'ios', rules: [rule] }),
      change('shared', { platform: 'ios', also: ['android'], rules: [rule] }),
    ];
    const on = (...open: Finding[]) => pathsOf(narrowed(both, { rules: [rule] }, open, leaving(open)));
    expect(on(finding(rule, 'one', 'android'))).toEqual(['android', 'shared']);
    expect(on(finding(rule, 'one', 'ios'))).toEqual(['ios', 'shared']);
    expect(on(finding(rule, 'one'))).toEqual(['android', 'ios', 'shared']);
    expect(on(finding('other/rule', 'one', 'android'))).toEqual([]);
    expect(on()).toEqual([]);
  });

  it('are all of their groups when they alone would break something', () => {
    const harmful = (paths: readonly string[]) =>
      paths.includes('beside') ? [] : [finding('tree/broken-file')];
    expect(pathsOf(narrowed(all, { rules: [rule] }, findings, leaving(findings, harmful)))).toEqual([
      'id',
      'beside',
    ]);
  });

  it('stay alone when what is left was there before', () => {
    const open = [...findings, finding('tree/broken-file')];
    const same = () => [finding('tree/broken-file')];
    expect(pathsOf(narrowed(all, { rules: [rule] }, open, leaving(findings, same)))).toEqual(['id']);
  });

  it('are all of their groups when these fix more of the rule', () => {
    const two = [finding(rule, 'first'), finding(rule, 'second')];
    const fixesOne = (changes: readonly Change[]): Trial => ({
      ...leaving([])(changes),
      remaining: changes.length > 1 ? [] : [two[1]!],
    });
    expect(pathsOf(narrowed(all, { rules: [rule] }, two, fixesOne))).toEqual(['id', 'beside']);
  });

  it('stay alone when their groups fix more of other rules only', () => {
    const two = [finding(rule), finding('other/rule')];
    const fixesOther = (changes: readonly Change[]): Trial => ({
      ...leaving([])(changes),
      remaining: changes.length > 1 ? [] : [two[1]!],
    });
    expect(pathsOf(narrowed(all, { rules: [rule] }, two, fixesOther))).toEqual(['id']);
  });

  it('are taken from what else is chosen', () => {
    const choice = { rules: [rule], groups: ['android/cobalt-heron/dependency'] };
    expect(pathsOf(narrowed(all, choice, findings, leaving(findings)))).toEqual([]);
  });
});
