import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { defineRule } from '../../../src/core/checks/model.js';
import { rules } from '../../../src/core/checks/rules/index.js';
import { runChecks } from '../../../src/core/checks/run.js';
import { compareVersions } from '../../../src/core/text/versions.js';
import { recogniser } from '../../../src/core/network/recognise.js';
import { runSurvey } from '../../../src/core/surveying.js';
import { findingsOf } from '../../support/rules.js';
import {
  androidFiles,
  appIdMetaData,
  gradle,
  kelp,
  manifest,
  profiles,
  root,
  treeOf,
  namingClass,
} from '../../support/trees.js';

const files = readdirSync(join(root, 'src/core/checks/rules')).filter(
  (name) => !['all.ts', 'index.ts'].includes(name),
);

describe('the catalogue of rules', () => {
  it('lists every file of the folder, in the order of their names', () => {
    expect(rules.map(({ meta }) => meta.id.replace('/', '-') + '.ts')).toEqual([...files].sort());
  });

  it.each(rules.map(({ meta }) => [meta.id, meta] as const))(
    '%s says what happens, how to mend it, and ends its sentences',
    (_, meta) => {
      for (const text of [
        meta.ifShipped,
        meta.mend,
        ...Object.values(meta.messages),
        ...Object.values(meta.otherMends ?? {}),
      ])
        expect(text).toMatch(/[.?}]$/);
      expect(meta.id).toMatch(/^[a-z]+(-[a-z]+)*\/[a-z]+(-[a-z]+)*$/);
      expect(Object.keys(meta.messages).length).toBeGreaterThan(0);
    },
  );

  it('has trees for every rule, where it must speak and where it must be silent', () => {
    const folder = join(root, 'tests/core/checks');
    const tests = readdirSync(folder)
      .map((name) => readFileSync(join(folder, name), 'utf8'))
      .join('\n');
    const without = files.filter((name) => {
      const text = readFileSync(join(root, 'src/core/checks/rules', name), 'utf8');
      const [, exported = ''] = /export const (\w+) = defineRule/.exec(text) ?? [];
      return !new RegExp(`(ruleCases|partnerCases|rehearsalCases|tallyCases)\\(\\s*${exported}\\b`).test(
        tests,
      );
    });
    expect(without).toEqual([]);
  });

  it('has no two rules of one name', () => {
    expect(new Set(rules.map(({ meta }) => meta.id)).size).toBe(rules.length);
  });
});

describe('running the rules', () => {
  const broken = defineRule({
    meta: {
      id: 'made/up',
      severity: 'note',
      ifShipped: 'Nothing.',
      mend: 'Nothing.',
      messages: { said: 'It lacks {something}.' },
      needsTitle: false,
    },
    *run() {
      yield { message: 'said' as const };
    },
  });

  it('turns a rule that fails into a finding, and runs the others', () => {
    const { survey } = runSurvey(
      treeOf(androidFiles({ 'app/src/main/AndroidManifest.xml': namingClass(manifest('')) })),
      {
        name: 'kelp',
        profiles,
        title: { id: 'kelp', title: kelp() },
      },
    );
    const context = {
      survey,
      profiles,
      recogniser: recogniser(profiles),
      title: kelp(),
      titleId: 'kelp',
      inventories: [],
      now: '',
    };
    const { findings, summary } = runChecks(context, [broken, ...rules]);
    expect(findings.find(({ rule }) => rule === 'engine/rule-failed')).toMatchObject({
      message: expect.stringContaining('lacks a value for {something}'),
    });
    expect(summary.blocker).toBe(1);
    expect(findings.some(({ rule }) => rule === 'app-id/missing')).toBe(true);
  });

  it('finds nothing in trees that are right', () => {
    expect(findingsOf(androidFiles())).toEqual([]);
  });

  it('keeps fingerprints when lines around the fault change', () => {
    const at = (head: string) =>
      findingsOf(
        androidFiles({ 'app/src/main/AndroidManifest.xml': manifest(appIdMetaData('YOUR_APP_ID'), head) }),
      );
    const [before, after] = [at(''), at('\n\n    <!-- a remark -->\n')];
    expect(after.map(({ fingerprint }) => fingerprint)).toEqual(before.map(({ fingerprint }) => fingerprint));
    expect(after[0]?.place?.line).not.toBe(before[0]?.place?.line);
  });

  it('gives the same fault at two places two fingerprints', () => {
    const code = 'val a = "CH-U-100001-BANNER0A"\nval b = "CH-U-100001-BANNER0A"\n';
    const findings = findingsOf(androidFiles({ 'app/src/main/java/K.kt': code }));
    expect(findings).toHaveLength(2);
    expect(new Set(findings.map(({ fingerprint }) => fingerprint)).size).toBe(2);
  });

  it('makes one finding of one wrong value that reaches five variants', () => {
    const flavours = gradle(
      '    flavorDimensions += "store"\n    productFlavors { create("north") {}\n create("south") {} }\n    buildTypes { create("beta") {} }',
    );
    const findings = findingsOf(
      androidFiles({
        'app/build.gradle.kts': flavours,
        'app/src/main/AndroidManifest.xml': manifest(appIdMetaData('YOUR_APP_ID')),
      }),
      null,
    );
    expect(findings).toHaveLength(1);
    expect(findings[0]?.variants).toEqual([
      'northDebug',
      'northRelease',
      'northBeta',
      'southDebug',
      'southRelease',
      'southBeta',
    ]);
  });

  it('sorts blockers first, then by place', () => {
    const findings = findingsOf(
      androidFiles({
        'app/build.gradle.kts': gradle('    buildTypes { create("beta") {} }').replace(
          'minSdk = 24',
          'minSdk = 20',
        ),
        'app/src/main/AndroidManifest.xml': manifest(''),
      }),
    );
    expect(findings.map(({ severity }) => severity)).toEqual(
      [...findings.map(({ severity }) => severity)].sort(),
    );
  });
});

describe('compareVersions', () => {
  it.each([
    ['1.2.3', '1.2.3', 0],
    ['1.2', '1.2.0', 0],
    ['1.10', '1.9', 1],
    ['13.0', '12.4', 1],
    ['21', '23', -2],
    ['6.2.0-beta1', '6.2.0', -1],
  ])('%s against %s', (a, b, sign) => {
    expect(Math.sign(compareVersions(a, b))).toBe(Math.sign(sign));
  });
});
