import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { appendItem, pbxString, removeWords, setPbxString } from '../../../src/core/formats/pbxproj/edit.js';
import { entryOf, readPbxproj, type PbxDict } from '../../../src/core/formats/pbxproj/read.js';
import { applyEdits } from '../../../src/core/text/edit.js';
import type { Title } from '../../../src/core/roster/model.js';
import { iosFiles, kelp, pbxproj, placement, plist } from '../../support/trees.js';
import { comesBack, holds, text, titleOn, type Files } from '../../support/wiring.js';

const scratch = mkdtempSync(join(tmpdir(), 'syndexa-pbx-'));
afterAll(() => rmSync(scratch, { recursive: true, force: true }));

/** The project file as another reader takes it: it fails on one that is not a property list. */
function judge(content: string): void {
  const file = join(scratch, 'project.pbxproj');
  writeFileSync(file, content);
  execFileSync('plparse', [file], { stdio: 'pipe' });
}

const project = 'Kelp.xcodeproj/project.pbxproj';
/** A tree that has nothing of any network yet. */
const bare = (changes: Record<string, string | null>) =>
  iosFiles({
    'Kelp/Info.plist': plist(''),
    Podfile: null,
    'Podfile.lock': null,
    ...changes,
  });
const full = kelp({
  placements: {
    footer: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222'),
  } as Title['placements'],
});
const wired = (files: Files, title = full, path = project) => {
  const result = holds(files, title);
  judge(text(result.after[path]));
  comesBack(files, title, result);
  return { ...result, project: text(result.after[path]) };
};

describe('strings of project files', () => {
  const read = (content: string) => readPbxproj(content).root as PbxDict;

  it.each(Array.from({ length: 127 }, (_, code) => String.fromCharCode(code)).filter((sign) => sign > '\0'))(
    'are read back as they were given: %j',
    (sign) => {
      const written = [sign, `a${sign}`, `${sign}b`, `a${sign}b${sign}`].map((value) => {
        const before = '{\n\tlist = (\n\t\tx,\n\t);\n\tname = old;\n}\n';
        const dict = read(before);
        const list = entryOf(dict, 'list')?.value;
        if (!list) throw new Error('There is no list.');
        const after = applyEdits(before, [
          appendItem(before, list, value, '\n'),
          ...setPbxString(before, dict, 'name', value, '\n'),
        ]);
        const again = read(after);
        expect(entryOf(again, 'name')?.value).toMatchObject({ value });
        expect(entryOf(again, 'list')?.value).toMatchObject({ items: [{ value: 'x' }, { value }] });
        if (/^[\w./]+$/.test(value) && !value.includes('//')) expect(pbxString(value)).toBe(value);
        else expect(pbxString(value)).toMatch(/^".*"$/s);
        return after;
      });
      judge(`(${written.join(',\n')})`);
    },
  );

  it.each([
    ['a list in one line', '{ a = (x, "Y=1", z, ); b = 1; }', '{ a = (x, z, ); b = 1; }'],
    ['the last of a list without a comma', '{ a = (x, "Y=1"); b = 1; }', '{ a = (x, ); b = 1; }'],
    ['a list with a line for each', '{\n\ta = (\n\t\tx,\n\t\t"Y=1",\n\t);\n}', '{\n\ta = (\n\t\tx,\n\t);\n}'],
    ['a text', '{ a = "x Y=1"; b = 1; }', '{ a = x; b = 1; }'],
    ['all that a setting adds, in one line', '{ a = "$(inherited) Y=1"; b = 1; }', '{  b = 1; }'],
  ])('a word goes, and nothing else on its line: %s', (_, before, after) => {
    const edits = removeWords(before, entryOf(read(before), 'a'), ['Y=1']);
    expect(applyEdits(before, edits)).toBe(after);
    judge(applyEdits(before, edits));
  });
});

/** A target in Objective-C, whose definitions are a list. */
const objectiveC = (list: string) =>
  pbxproj(`GCC_PREPROCESSOR_DEFINITIONS = ${list};`, `GCC_PREPROCESSOR_DEFINITIONS = ${list};`)
    .replaceAll('App.swift', 'main.m')
    .replaceAll('sourcecode.swift', 'sourcecode.c.objc')
    .replaceAll('SWIFT_ACTIVE_COMPILATION_CONDITIONS = DEBUG;', '');
const inObjectiveC = (list: string): Files => ({
  ...bare({ [project]: objectiveC(list), 'Kelp/App.swift': null }),
  'Kelp/main.m': '#import <UIKit/UIKit.h>\nint main(void) { return 0; }\n',
});

describe('project files', () => {
  it.each(['("A=1", "$(inherited)", )', '(\n\t\t\t\t\t"A=1",\n\t\t\t\t\t"$(inherited)",\n\t\t\t\t)'])(
    'a definition is quoted in a list: %j',
    (list) => {
      expect(wired(inObjectiveC(list)).project).toContain('"SYNDEXA_TEST=1",');
    },
  );

  it('a definition of the test stage goes from a list of the production stage', () => {
    const files = inObjectiveC('("A=1", "SYNDEXA_TEST=1", )');
    const { after } = holds(files, full);
    judge(text(after[project]));
    expect(text(after[project]).match(/"SYNDEXA_TEST=1"/g)).toHaveLength(1);
  });

  it('sources outside the folder of the project are referred to from their group', () => {
    const path = 'Builds/iOS/Kelp.xcodeproj/project.pbxproj';
    const moved = pbxproj()
      .replace('path = Kelp;', 'name = Kelp; path = ../../Sources/Kelp;')
      .replaceAll('INFOPLIST_FILE = Kelp/Info.plist', 'INFOPLIST_FILE = ../../Sources/Kelp/Info.plist');
    const standard = bare({});
    const files = Object.fromEntries(
      Object.entries(standard).map(([name, content]) => [
        name.startsWith('Kelp/') ? `Sources/${name}` : `Builds/iOS/${name}`,
        name === project ? moved : content,
      ]),
    );
    const { after, project: made } = wired(files, full, path);
    expect(Object.keys(after)).toContain('Sources/Kelp/Placebook.swift');
    expect(made).toContain('path = Placebook.swift; sourceTree = "<group>";');
  });

  it('a group that says where its files are from elsewhere takes new files by a path of its own', () => {
    const files = bare({
      [project]: pbxproj()
        .replace(
          'path = Kelp;\n\t\t\tsourceTree = "<group>";',
          'path = /opt/Kelp;\n\t\t\tsourceTree = "<absolute>";',
        )
        .replace(
          'path = App.swift; sourceTree = "<group>"',
          'path = Kelp/App.swift; sourceTree = SOURCE_ROOT',
        ),
    });
    expect(wired(files).project).toContain('path = Kelp/Placebook.swift; sourceTree = SOURCE_ROOT;');
  });

  it('a project that names another folder as its own is read from there', () => {
    const made = pbxproj().replace('mainGroup =', 'projectDirPath = ..;\n\t\t\tmainGroup =');
    const { [project]: _, ...rest } = bare({});
    const path = 'Build/Kelp.xcodeproj/project.pbxproj';
    const { after } = wired({ ...rest, [path]: made }, full, path);
    expect(Object.keys(after)).toContain('Kelp/Placebook.swift');
  });

  it('objects go into the section of their kind, in the order of IDs', () => {
    const sectioned = pbxproj()
      .replace(
        '\t\tAA0000000000000000000001 /*',
        '\n/* Begin PBXBuildFile section */\n\t\tAA0000000000000000000001 /*',
      )
      .replace(
        '\t\tAA0000000000000000000002 /*',
        '/* End PBXBuildFile section */\n\n/* Begin PBXFileReference section */\n\t\tAA0000000000000000000002 /*',
      )
      .replace(
        '\t\tAA0000000000000000000003 = {',
        '/* End PBXFileReference section */\n\n/* Begin PBXGroup section */\n\t\tAA0000000000000000000003 = {',
      );
    const { project: made } = wired(bare({ [project]: sectioned }));
    const section = (isa: string) =>
      new RegExp(`/\\* Begin ${isa} section \\*/\\n([\\s\\S]*?)/\\* End ${isa} section \\*/`).exec(
        made,
      )?.[1] ?? '';
    for (const isa of ['PBXBuildFile', 'PBXFileReference']) {
      const ids = [...section(isa).matchAll(/^\t\t([0-9A-F]{24}) /gm)].map(([, id]) => id);
      expect(ids).toHaveLength(2);
      expect(ids).toEqual([...ids].sort());
    }
  });

  it('sections and lists that two networks need are made once', () => {
    const frameworks = pbxproj()
      .replace(
        '\t\tAA0000000000000000000003 = {',
        '\t\tAA00000000000000000000F1 = {isa = PBXFrameworksBuildPhase; files = (\n\t\t\t); };\n/* End PBXFrameworksBuildPhase section */\n\n\t\tAA0000000000000000000003 = {',
      )
      .replace(
        'AA0000000000000000000007 /* Sources */,\n',
        'AA0000000000000000000007 /* Sources */,\n\t\t\t\tAA00000000000000000000F1,\n',
      );
    const title = titleOn(['cobalt-heron', 'marlstone'], { ios: 'example.brine.kelp' });
    const { project: made } = wired(bare({ [project]: frameworks }), title);
    for (const once of ['packageReferences = (', 'Begin XCRemoteSwiftPackageReference section'])
      expect(made.split(once)).toHaveLength(2);
  });

  it('a setting stays out of a file that other targets are based on', () => {
    const shared = pbxproj('HERON = x;', 'HERON = x;')
      .replace(
        '\t\tAA0000000000000000000003 = {',
        '\t\tAA00000000000000000000E1 = {isa = PBXFileReference; path = All.xcconfig; sourceTree = "<group>"; };\n\t\tAA0000000000000000000003 = {',
      )
      .replace(
        'AA0000000000000000000004 /* Kelp */,\n',
        'AA0000000000000000000004 /* Kelp */,\n\t\t\t\tAA00000000000000000000E1,\n',
      )
      .replaceAll(
        'name = Debug;',
        'baseConfigurationReference = AA00000000000000000000E1;\n\t\t\tname = Debug;',
      )
      .replaceAll(
        'name = Release;',
        'baseConfigurationReference = AA00000000000000000000E1;\n\t\t\tname = Release;',
      );
    const files = bare({
      [project]: shared,
      'All.xcconfig': '// All targets.\nENABLE_TESTABILITY = YES\n',
    });
    const { after } = wired(files);
    expect(text(after['All.xcconfig'])).toBe('// All targets.\nENABLE_TESTABILITY = YES\n');
  });
});
