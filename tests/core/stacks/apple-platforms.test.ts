import { describe, expect, it } from 'vitest';
import { runSurvey } from '../../../src/core/surveying.js';
import { findingsOf } from '../../support/rules.js';
import { iosFiles, kelp, pbxproj, plist, profiles, treeOf } from '../../support/trees.js';
import { comesBack, holds, type Files } from '../../support/wiring.js';

const project = 'Kelp.xcodeproj/project.pbxproj';
const survey = (files: Files, title = kelp()) =>
  runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title } }).survey;
const withSettings = (debug: string, release = debug, shared = '') =>
  iosFiles({ [project]: pbxproj(debug, release, shared) });

describe('the platforms of a target', () => {
  it.each([
    ['nothing says it', '', true],
    ['an SDK of iOS', 'SDKROOT = iphoneos;', true],
    ['an SDK of iOS with its version', 'SDKROOT = iphoneos18.2;', true],
    ['an SDK of macOS', 'SDKROOT = macosx;', false],
    ['an SDK of tvOS', 'SDKROOT = appletvos;', false],
    ['an SDK of watchOS', 'SDKROOT = watchos;', false],
    ['an SDK of visionOS', 'SDKROOT = xros;', false],
    [
      'several platforms, iOS among them',
      'SDKROOT = auto; SUPPORTED_PLATFORMS = "iphoneos iphonesimulator macosx";',
      true,
    ],
    ['several platforms without iOS', 'SDKROOT = auto; SUPPORTED_PLATFORMS = "macosx appletvos";', false],
    [
      'an SDK of macOS, and platforms that say more',
      'SDKROOT = macosx; SUPPORTED_PLATFORMS = "macosx iphoneos";',
      true,
    ],
    ['a value that only the build knows', 'SDKROOT = "$(WHATEVER)";', true],
  ])('%s', (_, settings, isIos) => {
    for (const files of [withSettings(settings), withSettings('', '', settings)]) {
      const { editions, stacks, passedOver } = survey(files);
      expect(editions.map(({ platform }) => platform)).toEqual(isIos ? ['ios'] : []);
      expect(stacks).toHaveLength(isIos ? 1 : 0);
      if (!isIos) expect(passedOver[0]?.why).toMatch(/Kelp is built for .*, not for iOS/);
    }
  });

  it('a target of its own wins over the project, and others of the project are named', () => {
    const mac = pbxproj('SDKROOT = iphoneos;', 'SDKROOT = iphoneos;', 'SDKROOT = macosx;');
    expect(survey(iosFiles({ [project]: mac })).editions).toHaveLength(1);
  });

  it('values of the iOS build are read where an app is for several platforms', () => {
    const both =
      'SDKROOT = auto; SUPPORTED_PLATFORMS = "iphoneos macosx"; MACOSX_DEPLOYMENT_TARGET = 14.0; "HERON[sdk=macosx*]" = "CH-I-100001-WRONG00M"; HERON = "CH-I-100001-SAMPLE0I";';
    const { facts } = survey(withSettings(both));
    const of = (kind: string) => facts.filter((fact) => fact.kind === kind).map(({ value }) => value);
    expect(of('app-id')).toContain('CH-I-100001-SAMPLE0I');
    expect(of('app-id')).not.toContain('CH-I-100001-WRONG00M');
    expect(new Set(of('deployment-target'))).toEqual(new Set(['15.0']));
  });
});

describe('the bundle ID of older projects', () => {
  const without = pbxproj().replaceAll('PRODUCT_BUNDLE_IDENTIFIER = example.brine.kelp;', '');
  const list = (value: string) => plist('').replace('$(PRODUCT_BUNDLE_IDENTIFIER)', value);
  const withList = (value: string) => iosFiles({ [project]: without, 'Kelp/Info.plist': list(value) });

  it.each([
    ['as it is', 'example.brine.kelp'],
    ['of the name of the product', 'example.brine.$' + '{PRODUCT_NAME:lower}'],
  ])('is in the property list: %s', (_, value) => {
    const { editions, unresolved } = survey(withList(value));
    expect(editions[0]?.identifier).toBe('example.brine.kelp');
    expect(unresolved.filter(({ kind }) => kind === 'identifier')).toEqual([]);
  });

  it.each([
    ['a setting that nothing sets', '$(PRODUCT_BUNDLE_IDENTIFIER)', /nothing in the tree sets/],
    ['no list and no setting', null, /neither the build setting/],
  ])('is unresolved, never silently absent: %s', (_, value, reason) => {
    const files =
      value === null ? iosFiles({ [project]: without, 'Kelp/Info.plist': null }) : withList(value);
    const found = survey(files).unresolved.filter(({ kind }) => kind === 'identifier');
    expect(found.length).toBeGreaterThan(0);
    for (const each of found) expect(each.reason).toMatch(reason);
  });
});

describe('several apps of one identifier', () => {
  // Two projects in one folder, whose targets have one name.
  const files = {
    ...iosFiles(),
    'KelpLite.xcodeproj/project.pbxproj': pbxproj('HERON = lite;', 'HERON = lite;'),
  };
  const named = (module?: string) =>
    kelp({ editions: { ios: { identifier: 'example.brine.kelp', ...(module ? { module } : {}) } } });

  it('are told apart by their projects, and their facts do not mix', () => {
    const { editions, facts } = survey(files, named());
    expect(editions.map(({ module }) => module)).toEqual([
      'Kelp (Kelp.xcodeproj)',
      'Kelp (KelpLite.xcodeproj)',
    ]);
    const ids = (module: string) =>
      facts.filter((fact) => fact.kind === 'app-id' && fact.module === module).map(({ value }) => value);
    expect(new Set(ids('Kelp (KelpLite.xcodeproj)'))).toEqual(new Set(['lite']));
    expect(ids('Kelp (Kelp.xcodeproj)')).toEqual(['CH-I-100001-SAMPLE0I', 'CH-I-310772-M6R9V3XC']);
  });

  it('the title has to name one, and is told how', () => {
    const [finding] = findingsOf(files, named()).filter(
      ({ rule }) => rule === 'identifier/edition-not-found',
    );
    expect(finding).toMatchObject({ mend: 'Name the module: syndexa title set kelp --module ios=MODULE.' });
  });

  it('the one that is named is checked and wired, and the other is left alone', () => {
    const title = named('Kelp (KelpLite.xcodeproj)');
    expect(findingsOf(files, title).map(({ rule }) => rule)).not.toContain('identifier/edition-not-found');
    const bare: Files = { ...files, 'Kelp/Info.plist': plist(''), Podfile: '', 'Podfile.lock': '' };
    const result = holds(bare, title);
    expect(result.after[project]).toBe(bare[project]);
    comesBack(bare, title, result);
  });
});
