import { describe, expect, it } from 'vitest';
import { runSurvey } from '../../../src/core/surveying.js';
import { readProfile } from '../../../src/core/network/read.js';
import { neededRecords } from '../../../src/core/roster/app-ads-needs.js';
import { Roster } from '../../../src/core/roster/model.js';
import { brackwater, brackwaterText, onBrackwater } from '../../support/brackwater.js';
import { findingsOf } from '../../support/rules.js';
import { androidFiles, iosFiles, treeOf } from '../../support/trees.js';

// A unit ID by property, builder, labelled initialiser; a start-up that ends in a closure or is awaited.

const profiles = [brackwater()];
const title = onBrackwater();
const home = 'app/src/main/java/example/brine/kelp';
const android = (name: string, code: string) =>
  androidFiles({ [`${home}/KelpApp.java`]: null, [`${home}/${name}`]: code });
const ios = (name: string, code: string) =>
  Object.fromEntries(
    Object.entries(iosFiles({ 'Kelp/App.swift': null, [`Kelp/${name}`]: code })).map(([path, text]) => [
      path,
      path.endsWith('.pbxproj') ? text.replaceAll('App.swift', name) : text,
    ]),
  );
const survey = (files: Record<string, string>) =>
  runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title } }).survey;
const body = (lines: string) => `class Screen : Activity() {\nfun go() {\n${lines}\n}\n}\n`;
const swift = (lines: string) => ios('App.swift', `class Screen {\nfunc go() async {\n${lines}\n}\n}\n`);

describe('a unit ID that is no argument of the load call', () => {
  it.each([
    ['a property', android('A.kt', body('val s = AdSlot(this)\ns.unitId = "7777777"\ns.load()')), 'banner'],
    [
      'a property in apply',
      android('A.kt', body('AdSlot(this).apply { unitId = "7777777" }.load()')),
      'banner',
    ],
    [
      'a property in with',
      android('A.kt', body('val s = AdSlot(this)\nwith(s) { unitId = "7777777" }')),
      'banner',
    ],
    [
      'a builder',
      android(
        'A.kt',
        body('val l = RewardLoader.Builder(this).timeout(3).unit("7777777").build()\nl.load()'),
      ),
      'rewarded',
    ],
    [
      'a setter',
      android(
        'A.java',
        'class A { void go() { AdSlot s = new AdSlot(this); s.setUnitId("7777777"); s.load(); } }',
      ),
      'banner',
    ],
    ['a labelled initialiser', swift('let s = AdSlot(unitID: "7777777")'), 'banner'],
    ['a property of Swift', swift('let l = RewardLoader()\nl.unitID = "7777777"\nl.load()'), 'rewarded'],
  ])('%s is found, with the call that it belongs to', (_, files, format) => {
    const { facts } = survey(files as Record<string, string>);
    const unit = facts.find(({ kind, value }) => kind === 'unit-id' && value === '7777777');
    expect(unit).toMatchObject({ network: 'brackwater' });
    const call = facts.find(
      (fact) =>
        fact.kind === 'call' && fact.format === format && fact.code?.argument?.ids.includes('7777777'),
    );
    expect(call).toBeDefined();
  });

  it.each([
    [
      'an initialiser of Objective-C',
      'A.m',
      '@implementation A\n- (void)go { AdSlot *s = [[AdSlot alloc] initWithUnitID:@"7777777"]; }\n@end\n',
    ],
  ])('%s', (_, name, code) => {
    const { facts } = survey(ios(name, code));
    expect(facts.filter(({ kind }) => kind === 'unit-id').map(({ value }) => value)).toContain('7777777');
  });

  it('is no ID where nothing takes it, unless it is on record', () => {
    const files = android('A.kt', body('val port = "7777777"\nval mine = "5200101"'));
    const found = survey(files).facts.filter(({ kind }) => kind === 'unit-id');
    expect(found.map(({ value }) => value)).toEqual(['5200101']);
  });

  it('is held against the placement of another format', () => {
    const files = android('A.kt', body('AdSlot(this).apply { unitId = "5200102" }.load()'));
    const found = findingsOf(files, title, undefined, { profiles }).filter(
      ({ rule }) => rule === 'code/wrong-format',
    );
    expect(found).toHaveLength(1);
  });
});

describe('a start-up that reports its end otherwise than by a callback', () => {
  const early = (files: Record<string, string>) =>
    findingsOf(files, title, undefined, { profiles }).filter(({ rule }) => rule === 'code/load-before-start');
  it.each([
    ['in the closure of Kotlin', android('A.kt', body('Brackwater.start(this) { AdSlot(this).load() }')), 0],
    [
      'beside the closure of Kotlin',
      android('A.kt', body('Brackwater.start(this) { }\nAdSlot(this).load()')),
      1,
    ],
    ['awaited', swift('await Brackwater.start()\nlet s = AdSlot(unitID: "5200201")'), 0],
    ['not awaited', swift('Brackwater.start()\nlet s = AdSlot(unitID: "5200201")'), 1],
    [
      'in a block of Objective-C',
      ios(
        'A.m',
        '@implementation A\n- (void)go { [Brackwater startWithCompletion:^(BOOL ok) { AdSlot *s = [[AdSlot alloc] initWithUnitID:@"5200201"]; }]; }\n@end\n',
      ),
      0,
    ],
    [
      'below a block of Objective-C',
      ios(
        'A.m',
        '@implementation A\n- (void)go { [Brackwater startWithCompletion:^(BOOL ok) { }];\nAdSlot *s = [[AdSlot alloc] initWithUnitID:@"5200201"]; }\n@end\n',
      ),
      1,
    ],
    [
      'after a callback of Java',
      android(
        'A.java',
        'class A { void go() { Brackwater.start(this, this); }\nvoid onBrackwaterReady() { AdSlot s = new AdSlot(this); s.load(); } }',
      ),
      0,
    ],
  ])('%s', (_, files, count) => {
    expect(early(files as Record<string, string>)).toHaveLength(count);
  });
});

describe('profiles that say such things', () => {
  it('have to say what takes the unit ID', () => {
    const without = brackwaterText.replace(', taken-by: { call: AdSlot.setUnitId }', '');
    expect(readProfile(without).problems.map(({ field }) => field)).toContain(
      'code.java.formats.banner.load',
    );
  });

  it('write the publisher’s number into a record of app-ads.txt', () => {
    const text = brackwaterText.replace(
      'app-ads:\n',
      'app-ads:\n  - { domain: reef.example, relationship: RESELLER, account: brackwater, why: They sell on. }\n',
    );
    const { profile } = readProfile(text);
    const roster = Roster.parse({
      syndexa: 1,
      publisher: { name: 'Brine', domain: 'brine.example', accounts: { brackwater: '7731' } },
      titles: { kelp: title },
    });
    const records = neededRecords(roster, profile ? [profile] : []).map(({ record }) => record?.account);
    expect(records).toEqual(['brackwater', 'bw-7731']);
  });
});
