import { factDetail } from '../../../src/core/facts/show.js';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readBinaryPlist } from '../../../src/core/formats/plist/binary.js';
import type { PlistValue } from '../../../src/core/formats/plist/read.js';
import type { Fact, Survey } from '../../../src/core/facts/model.js';
import { runSurvey } from '../../../src/core/surveying.js';
import { appIdKey, iosFiles, kelp, pbxproj, plist, profiles, treeOf } from '../../support/trees.js';

const project = 'Kelp.xcodeproj/project.pbxproj';
function survey(files: Record<string, string | Uint8Array>): Survey {
  return runSurvey(treeOf(files), { name: 'kelp', profiles, title: { id: 'kelp', title: kelp() } }).survey;
}
const facts = (found: Survey, kind: Fact['kind']) =>
  found.facts
    .filter((fact) => fact.kind === kind)
    .map(({ variants, value }) => `${variants.join(' ')}: ${value}`);
const appIds = (debug: string, release = 'HERON = x;', more: Record<string, string> = {}) =>
  facts(survey(iosFiles({ [project]: pbxproj(debug, release), ...more })), 'app-id');
const based = (debug = '') =>
  pbxproj(debug, 'HERON = x;')
    .replace(
      'name = Debug;\n\t\t};\n\t\tAA0000000000000000000009',
      'name = Debug;\n\t\t\tbaseConfigurationReference = AA00000000000000000000FF;\n\t\t};\n\t\tAA0000000000000000000009',
    )
    .replace(
      '\t\tAA0000000000000000000003 = {',
      '\t\tAA00000000000000000000FF = {isa = PBXFileReference; path = Debug.xcconfig; sourceTree = "<group>"; };\n\t\tAA0000000000000000000003 = {',
    )
    .replace(
      'AA0000000000000000000004 /* Kelp */,\n',
      'AA0000000000000000000004 /* Kelp */,\n\t\t\t\tAA00000000000000000000FF,\n',
    );
const withFile = (text: string, more: Record<string, string> = {}) =>
  survey(iosFiles({ [project]: based(), 'Debug.xcconfig': text, ...more }));

describe('conditional settings', () => {
  it.each([
    ['for devices', '"HERON[sdk=iphoneos*]" = device; HERON = any;', 'Debug: device'],
    ['for the simulator', '"HERON[sdk=iphonesimulator*]" = simulator; HERON = any;', 'Debug: any'],
    ['for a configuration', '"HERON[config=Debug]" = mine; HERON = any;', 'Debug: mine'],
    ['for another configuration', '"HERON[config=Release]" = other; HERON = any;', 'Debug: any'],
    [
      'for two things at once',
      '"HERON[sdk=iphoneos*][arch=arm64]" = both; "HERON[sdk=*]" = one;',
      'Debug: both',
    ],
  ])('%s', (_, debug, wanted) => {
    expect(appIds(debug)).toContain(wanted);
  });

  it('in configuration files, where what comes later wins', () => {
    const shared = { 'Shared.xcconfig': 'HERON = shared\nHERON[config=Debug] = conditional\n' };
    const debug = (text: string) => facts(withFile(text, shared), 'app-id')[0];
    expect(debug('HERON = mine\n')).toBe('Debug: mine');
    expect(debug('HERON = mine\nHERON = later\n')).toBe('Debug: later');
    expect(debug('HERON = mine\n#include "Shared.xcconfig"\n')).toBe('Debug: conditional');
    expect(debug('#include? "Absent.xcconfig"\nHERON = mine\n')).toBe('Debug: mine');
  });

  it('say what a file includes that is not there', () => {
    expect(withFile('#include "Absent.xcconfig"\nHERON = a\n').unresolved).toMatchObject([
      { what: 'the settings that Absent.xcconfig would give', place: { path: 'Debug.xcconfig', line: 1 } },
    ]);
    expect(withFile('#include "Pods/Target Support Files/x.xcconfig"\nHERON = a\n').unresolved).toEqual([]);
  });
});

describe('operators', () => {
  it.each([
    ['$(A:lower)', 'ab cd.txt'],
    ['$(A:upper)', 'AB CD.TXT'],
    ['$(A:rfc1034identifier)', 'Ab-Cd.txt'],
    ['$(A:c99extidentifier)', 'Ab_Cd_txt'],
    ['$(A:quote)', 'Ab\\ Cd.txt'],
    ['$(P:file)', 'c.txt'],
    ['$(P:dir)', '/a/b'],
    ['$(P:base)', 'c'],
    ['$(P:suffix)', '.txt'],
    ['$(NONE:default=spare)', 'spare'],
    ['$(EMPTY:default=spare)', 'spare'],
    ['$(NONE:default=$(A:lower))', 'ab cd.txt'],
  ])('%s', (text, wanted) => {
    const found = survey(
      iosFiles({
        [project]: pbxproj('A = "Ab Cd.txt"; P = "/a/b/c.txt"; EMPTY = "";'),
        'Kelp/Info.plist': plist(appIdKey(text)),
      }),
    );
    expect(found.facts.filter(({ kind }) => kind === 'app-id')[0]).toMatchObject({ value: wanted });
  });

  it('that are not known are said', () => {
    const found = survey(
      iosFiles({ [project]: pbxproj('A = a;', 'A = a;'), 'Kelp/Info.plist': plist(appIdKey('$(A:twist)')) }),
    );
    expect(found.unresolved.find(({ kind }) => kind === 'app-id')?.reason).toBe(
      'the operator :twist is not known',
    );
  });
});

describe('generated property lists', () => {
  const generated = (more: string, list: string | null = null) =>
    survey(
      iosFiles({
        [project]: pbxproj(
          `GENERATE_INFOPLIST_FILE = YES; ${more}`,
          `GENERATE_INFOPLIST_FILE = YES; ${more}`,
        ).replaceAll(
          'INFOPLIST_FILE = Kelp/Info.plist;',
          list === null ? '' : 'INFOPLIST_FILE = Kelp/Info.plist;',
        ),
        'Kelp/Info.plist': list,
      }),
    );
  const tracking = (found: Survey) =>
    found.facts
      .filter(({ kind }) => kind === 'plist-key')
      .map((fact) => `${fact.value} (${factDetail(fact)})`);

  it('hold the system’s keys that the settings name', () => {
    expect(tracking(generated('INFOPLIST_KEY_NSUserTrackingUsageDescription = "Why we ask";'))).toEqual([
      'Why we ask (string)',
      'Why we ask (string)',
    ]);
  });

  it('hold no key of an SDK', () => {
    const found = generated('INFOPLIST_KEY_CobaltHeronAppID = "CH-I-310772-M6R9V3XC";');
    expect(found.facts.filter(({ kind }) => kind === 'app-id')).toMatchObject([
      { effective: { reason: 'setting-ignored' }, variants: ['Debug'] },
      { effective: { reason: 'setting-ignored' }, variants: ['Release'] },
    ]);
  });

  it('are put beside a file, whose keys win', () => {
    const found = generated(
      'INFOPLIST_KEY_NSUserTrackingUsageDescription = "from settings";',
      plist('\t<key>NSUserTrackingUsageDescription</key>\n\t<string>from the file</string>'),
    );
    expect(tracking(found)).toEqual(['from the file (string)']);
  });
});

describe('membership', () => {
  const unit = 'let unit = "CH-U-310772-BBBB1111"\n';
  const synchronised = (exceptions = '') =>
    pbxproj()
      .replace(
        'name = Kelp;\n',
        'name = Kelp;\n\t\t\tfileSystemSynchronizedGroups = (AA00000000000000000000F1);\n',
      )
      .replace(
        '\t\tAA0000000000000000000003 = {',
        `\t\tAA00000000000000000000F1 = {isa = PBXFileSystemSynchronizedRootGroup; path = Ads; sourceTree = "<group>"; exceptions = (AA00000000000000000000F2); };\n\t\tAA00000000000000000000F2 = {isa = PBXFileSystemSynchronizedBuildFileExceptionSet; target = AA0000000000000000000005; membershipExceptions = (${exceptions}); };\n\t\tAA0000000000000000000003 = {`,
      )
      .replace(
        'AA0000000000000000000004 /* Kelp */,\n',
        'AA0000000000000000000004 /* Kelp */,\n\t\t\t\tAA00000000000000000000F1,\n',
      );
  it.each([
    ['a file of the sources phase', pbxproj(), 'Kelp/App.swift', 1],
    ['a file that no target compiles', pbxproj(), 'Kelp/Left.swift', 0],
    ['a file of a synchronised folder', synchronised(), 'Ads/Deep/Unit.swift', 1],
    ['an exception of that folder', synchronised('Deep/Unit.swift'), 'Ads/Deep/Unit.swift', 0],
  ])('%s', (_, text, path, count) => {
    expect(facts(survey(iosFiles({ [project]: text, [path]: unit })), 'unit-id')).toHaveLength(count);
  });

  it('takes frameworks that the target links, and leaves extensions out', () => {
    const linked = (type: string) =>
      pbxproj()
        .replace('name = Kelp;\n', 'name = Kelp;\n\t\t\tdependencies = (AA00000000000000000000E1);\n')
        .replace(
          'AA0000000000000000000005 /* Kelp */,\n\t\t\t);\n\t\t};\n\t\tAA000000000000000000000B',
          'AA0000000000000000000005 /* Kelp */,\n\t\t\t\tAA00000000000000000000E2,\n\t\t\t);\n\t\t};\n\t\tAA000000000000000000000B',
        )
        .replace(
          '\t\tAA0000000000000000000003 = {',
          `\t\tAA00000000000000000000E1 = {isa = PBXTargetDependency; target = AA00000000000000000000E2; };
\t\tAA00000000000000000000E2 = {isa = PBXNativeTarget; name = Extra; productType = "${type}"; buildPhases = (AA00000000000000000000E3); };
\t\tAA00000000000000000000E3 = {isa = PBXSourcesBuildPhase; files = (AA00000000000000000000E4); };
\t\tAA00000000000000000000E4 = {isa = PBXBuildFile; fileRef = AA00000000000000000000E5; };
\t\tAA00000000000000000000E5 = {isa = PBXFileReference; path = Extra.swift; sourceTree = "<group>"; };
\t\tAA0000000000000000000003 = {`,
        )
        .replace(
          'AA0000000000000000000004 /* Kelp */,\n',
          'AA0000000000000000000004 /* Kelp */,\n\t\t\t\tAA00000000000000000000E5,\n',
        );
    const found = (type: string) => survey(iosFiles({ [project]: linked(type), 'Extra.swift': unit }));
    expect(facts(found('com.apple.product-type.framework'), 'unit-id')).toHaveLength(1);
    const extension = found('com.apple.product-type.app-extension');
    expect(facts(extension, 'unit-id')).toHaveLength(0);
    expect(extension.facts.filter(({ kind }) => kind === 'extension').map(({ name }) => name)).toEqual([
      'Extra',
    ]);
  });
});

describe('Podfiles', () => {
  const pods = (text: string, more: Record<string, string> = {}) =>
    survey(iosFiles({ Podfile: text, 'Kelp/Info.plist': plist(appIdKey('x')), ...more }));
  it.each([
    ['at the top', "pod 'CobaltHeronAds'\ntarget 'Kelp' do\nend\n", 1],
    ['in another target', "target 'Other' do\n  pod 'CobaltHeronAds'\nend\ntarget 'Kelp' do\nend\n", 0],
    [
      'in an abstract target around it',
      "abstract_target 'All' do\n  pod 'CobaltHeronAds'\n  target 'Kelp' do\n  end\nend\n",
      1,
    ],
    [
      'around it, with search paths only',
      "abstract_target 'All' do\n  pod 'CobaltHeronAds'\n  target 'Kelp' do\n    inherit! :search_paths\n  end\nend\n",
      0,
    ],
    [
      'in a target inside it',
      "target 'Kelp' do\n  target 'KelpTests' do\n    pod 'CobaltHeronAds'\n  end\nend\n",
      0,
    ],
    ['in a method', "def ads\n  pod 'CobaltHeronAds', '~> 6.2'\nend\ntarget 'Kelp' do\n  ads\nend\n", 1],
    ['in a method that nobody calls', "def ads\n  pod 'CobaltHeronAds'\nend\ntarget 'Kelp' do\nend\n", 0],
    ['in a comment', "target 'Kelp' do\n  # pod 'CobaltHeronAds'\nend\n", 0],
    ['on several lines', "target 'Kelp' do\n  pod 'CobaltHeronAds',\n    '>= 6.0',\n    '< 7'\nend\n", 1],
  ])('%s', (_, text, count) => {
    const found = pods(text).facts.filter(({ kind }) => kind === 'dependency');
    expect(found).toHaveLength(count);
  });

  it('limit a pod to configurations', () => {
    const found = pods(
      "target 'Kelp' do\n  pod 'CobaltHeronAds', '6.2', :configurations => ['Debug']\nend\n",
    );
    expect(facts(found, 'dependency')).toEqual(['Debug: 6.2']);
  });

  it.each(["if ENV['ADS']\n    pod 'CobaltHeronAds'\n  end", "pod 'CobaltHeronAds' unless ENV['LITE']"])(
    'say what they take under a condition: %s',
    (line) => {
      const found = pods(`target 'Kelp' do\n  ${line}\nend\n`);
      expect(facts(found, 'dependency')).toEqual([]);
      expect(found.unresolved).toMatchObject([
        { kind: 'dependency', reason: expect.stringContaining('ENV[') },
      ]);
    },
  );

  it('are held against their lock', () => {
    const podfile = "target 'Kelp' do\n  pod 'CobaltHeronAds', '~> 6.2'\nend\n";
    const states = (lock: Record<string, string>) =>
      pods(podfile, lock)
        .facts.filter(({ kind }) => kind === 'resolved-version')
        .map((fact) => `${fact.value} ${factDetail(fact)}`);
    const lock = (text: string) => ({ 'Podfile.lock': text });
    expect(states({ 'Podfile.lock': null } as never)).toEqual([' no Podfile.lock']);
    expect(states(lock('PODS:\n  - Other (1.0)\nDEPENDENCIES:\n  - Other\n'))).toEqual([
      ' not in Podfile.lock',
    ]);
    expect(
      states(
        lock(
          'PODS:\n  - CobaltHeronAds (6.2.3):\n    - Other (= 1.0)\n  - Other (1.0)\nDEPENDENCIES:\n  - CobaltHeronAds (~> 6.2)\n',
        ),
      ),
    ).toEqual(['6.2.3 in Podfile.lock']);
  });

  it('make the workspace what is to be opened', () => {
    const workspace = (location: string) =>
      `<Workspace version="1.0"><FileRef location="${location}"></FileRef></Workspace>`;
    const found = (location: string, more: Record<string, string | null> = {}) =>
      survey(iosFiles({ 'Kelp.xcworkspace/contents.xcworkspacedata': workspace(location), ...more }))
        .facts.filter(({ kind }) => kind === 'workspace')
        .map((fact) => `${fact.value}: ${factDetail(fact)}`);
    expect(found('group:Kelp.xcodeproj')).toEqual(['Kelp.xcworkspace: to be opened instead of the project']);
    expect(found('group:Kelp.xcodeproj', { Podfile: null })).toEqual([
      'Kelp.xcworkspace: beside the project',
    ]);
    expect(found('group:Other.xcodeproj')).toEqual([]);
  });
});

describe('Swift packages', () => {
  const packaged = pbxproj()
    .replace(
      'name = Kelp;\n',
      'name = Kelp;\n\t\t\tpackageProductDependencies = (AA00000000000000000000D1);\n',
    )
    .replace(
      '\t\tAA0000000000000000000003 = {',
      `\t\tAA00000000000000000000D1 = {isa = XCSwiftPackageProductDependency; package = AA00000000000000000000D2; productName = CobaltHeronAds; };
\t\tAA00000000000000000000D2 = {isa = XCRemoteSwiftPackageReference; repositoryURL = "https://packages.cobaltheron.example/ads-ios"; requirement = {kind = upToNextMajorVersion; minimumVersion = 6.2.0; }; };
\t\tAA0000000000000000000003 = {`,
    );
  const resolved = (text?: string) =>
    survey(
      iosFiles({
        [project]: packaged,
        Podfile: null,
        ...(text === undefined
          ? {}
          : { 'Kelp.xcodeproj/project.xcworkspace/xcshareddata/swiftpm/Package.resolved': text }),
      }),
    )
      .facts.filter(({ kind }) => kind === 'resolved-version')
      .map((fact) => `${fact.value} ${factDetail(fact)}`);
  it('are held against Package.resolved, old and new', () => {
    expect(resolved()).toEqual([' no Package.resolved']);
    expect(resolved('{"pins": [], "version": 3}')).toEqual([' not in Package.resolved']);
    expect(
      resolved(
        '{"version": 2, "pins": [{"identity": "ads-ios", "location": "https://packages.cobaltheron.example/ads-ios.git", "state": {"version": "6.3.1"}}]}',
      ),
    ).toEqual(['6.3.1 in Package.resolved']);
    expect(
      resolved(
        '{"version": 1, "object": {"pins": [{"package": "Ads", "repositoryURL": "https://packages.cobaltheron.example/ads-ios", "state": {"version": "6.2.5"}}]}}',
      ),
    ).toEqual(['6.2.5 in Package.resolved']);
  });
});

describe('storyboards', () => {
  it('give views that profiles name, with their units, when they are built in', () => {
    const storyboard =
      '<document><scenes><view customClass="HeronBannerView"><userDefinedRuntimeAttributes><userDefinedRuntimeAttribute type="string" keyPath="unit" value="CH-U-310772-BBBB1111"/></userDefinedRuntimeAttributes></view></scenes></document>';
    const built = pbxproj()
      .replace(
        'AA0000000000000000000007 /* Sources */,\n',
        'AA0000000000000000000007 /* Sources */,\n\t\t\t\tAA00000000000000000000C1,\n',
      )
      .replace(
        '\t\tAA0000000000000000000003 = {',
        `\t\tAA00000000000000000000C1 = {isa = PBXResourcesBuildPhase; files = (AA00000000000000000000C2); };
\t\tAA00000000000000000000C2 = {isa = PBXBuildFile; fileRef = AA00000000000000000000C3; };
\t\tAA00000000000000000000C3 = {isa = PBXVariantGroup; children = (AA00000000000000000000C4); name = Main.storyboard; sourceTree = "<group>"; };
\t\tAA00000000000000000000C4 = {isa = PBXFileReference; path = Base.lproj/Main.storyboard; sourceTree = "<group>"; };
\t\tAA0000000000000000000003 = {`,
      )
      .replace(
        'AA0000000000000000000004 /* Kelp */,\n',
        'AA0000000000000000000004 /* Kelp */,\n\t\t\t\tAA00000000000000000000C3,\n',
      );
    const found = survey(iosFiles({ [project]: built, 'Base.lproj/Main.storyboard': storyboard }));
    expect(facts(found, 'unit-id')).toEqual(['Debug Release: CH-U-310772-BBBB1111']);
    expect(facts(found, 'banner-view')).toEqual(['Debug Release: HeronBannerView']);
    expect(facts(survey(iosFiles({ 'Base.lproj/Main.storyboard': storyboard })), 'banner-view')).toEqual([]);
  });
});

describe('binary property lists', () => {
  const folder = mkdtempSync(join(tmpdir(), 'syndexa-plist-'));
  const binary = (text: string): Uint8Array => {
    writeFileSync(join(folder, 'a.plist'), text);
    execFileSync('plistutil', ['-i', join(folder, 'a.plist'), '-o', join(folder, 'b.plist'), '-f', 'bin']);
    return new Uint8Array(readFileSync(join(folder, 'b.plist')));
  };
  const plain = (value: PlistValue): unknown => {
    if (value.type === 'dict')
      return Object.fromEntries(value.entries.map(({ key, value: inner }) => [key, plain(inner)]));
    return value.type === 'array' ? value.items.map(plain) : value.value;
  };

  it('say the same as the XML that an independent tool made them from', () => {
    const { root, problems } = readBinaryPlist(
      binary(
        plist(
          '<key>a</key><string>plain</string><key>b</key><string>größe 漢字</string><key>c</key><integer>-42</integer><key>d</key><real>1.5</real><key>e</key><true/><key>f</key><array><string>x</string><dict><key>y</key><false/></dict></array><key>long</key><string>' +
            'l'.repeat(300) +
            '</string>',
        ),
      ),
    );
    expect(problems).toEqual([]);
    expect(plain(root!)).toEqual({
      CFBundleIdentifier: '$(PRODUCT_BUNDLE_IDENTIFIER)',
      a: 'plain',
      b: 'größe 漢字',
      c: '-42',
      d: '1.5',
      e: true,
      f: ['x', { y: false }],
      long: 'l'.repeat(300),
    });
  });

  it('are read as any other by a survey', () => {
    const found = survey(iosFiles({ 'Kelp/Info.plist': null }));
    expect(facts(found, 'app-id')).toEqual([]);
    const files = { ...iosFiles(), 'Kelp/Info.plist': binary(plist(appIdKey('$(HERON)'))) };
    expect(facts(survey(files), 'app-id')).toEqual([
      'Debug: CH-I-100001-SAMPLE0I',
      'Release: CH-I-310772-M6R9V3XC',
    ]);
    expect(survey(files).problems).toEqual([]);
  });

  it('that are broken give a reason, and never hang', () => {
    const whole = binary(plist(appIdKey('x')));
    fc.assert(
      fc.property(fc.nat(whole.length - 1), fc.nat(255), fc.boolean(), (at, byte, cut) => {
        const changed = cut ? whole.slice(0, at) : whole.slice();
        if (!cut) changed[at] = byte;
        const { root, problems } = readBinaryPlist(changed);
        expect(root !== null || problems.length === 1).toBe(true);
      }),
      { numRuns: 400 },
    );
  });
});
