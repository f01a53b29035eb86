import { listed } from '../../../src/core/checks/scope.js';
import { describe, expect, it } from 'vitest';
import { findingsOf } from '../../support/rules.js';
import { androidFiles, appIdMetaData, gradle, iosFiles, manifest } from '../../support/trees.js';

const wrong = 'CH-A-310772-ZZZZ9999';
const main = 'app/src/main/AndroidManifest.xml';
const release = 'app/src/release/res/values/ids.xml';
const placed = (rule: string, files: Record<string, string>) =>
  findingsOf(files)
    .filter((finding) => finding.rule === rule)
    .map(({ place, chain }) => ({
      at: `${place?.path}:${place?.line}`,
      by: chain.flatMap(({ place: step }) => step?.path ?? []),
    }));

describe('a finding points at the line that a person edits', () => {
  it('the string, not the manifest that refers to it', () => {
    const files = androidFiles({
      [release]: `<resources>\n    <string name="heron">${wrong}</string>\n</resources>\n`,
    });
    expect(placed('app-id/differs-from-roster', files)).toEqual([
      { at: `${release}:2`, by: [main, release] },
    ]);
  });

  it('the placeholder in the script', () => {
    const android = `    buildTypes {\n        getByName("debug") { manifestPlaceholders["heron"] = "CH-A-100001-SAMPLE0A" }\n        getByName("release") { manifestPlaceholders["heron"] = "${wrong}" }\n    }`;
    const files = androidFiles({
      [main]: manifest(appIdMetaData('${heron}')).replace(
        '<application',
        '<application android:name=".KelpApp"',
      ),
      'app/build.gradle.kts': gradle(android),
    });
    const [first] = placed('app-id/differs-from-roster', files);
    expect(first?.at).toMatch(/^app\/build\.gradle\.kts:/);
    expect(first?.by).toContain(main);
  });

  it('the build setting, not the property list', () => {
    const project = 'Kelp.xcodeproj/project.pbxproj';
    const files = iosFiles();
    const text = (files[project] ?? '').replace('CH-I-310772-M6R9V3XC', 'CH-I-310772-ZZZZ9999');
    const [first] = placed('app-id/differs-from-roster', { ...files, [project]: text });
    expect(first?.at).toMatch(/^Kelp\.xcodeproj\/project\.pbxproj:/);
    expect(first?.by).toContain('Kelp/Info.plist');
  });

  it('the value itself where nothing refers to another place', () => {
    const files = androidFiles({ [main]: manifest(appIdMetaData(wrong)) });
    expect(placed('app-id/differs-from-roster', files)[0]?.at).toBe(`${main}:7`);
  });
});

describe('names in a message', () => {
  it('are cut where there are many', () => {
    const names = Array.from({ length: 12 }, (_, at) => `v${at + 1}`);
    expect(listed(names.slice(0, 3))).toBe('v1, v2 and v3');
    expect(listed(names)).toBe('v1, v2, v3, v4 and 8 more');
    expect(listed(names, 12)).toMatch(/v11 and v12$/);
  });
});
