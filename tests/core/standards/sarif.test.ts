import { describe, expect, it } from 'vitest';
import { rules } from '../../../src/core/checks/rules/index.js';
import { sarifLog } from '../../../src/core/checks/sarif-report.js';
import { findingsOf } from '../../support/rules.js';
import { androidFiles, gradle, manifest } from '../../support/trees.js';

interface Log {
  version: string;
  runs: {
    tool: {
      driver: {
        name: string;
        informationUri: string;
        rules: { id: string; helpUri: string; defaultConfiguration: { level: string } }[];
      };
    };
    originalUriBaseIds: Record<string, unknown>;
    results: Result[];
  }[];
}
interface Result {
  ruleId: string;
  ruleIndex: number;
  level: string;
  message: { text: string };
  locations: { physicalLocation: { artifactLocation: { uri: string }; region: Record<string, number> } }[];
  partialFingerprints: Record<string, string>;
}

describe('SARIF', () => {
  const findings = findingsOf(
    androidFiles({
      'app/src/main/AndroidManifest.xml': manifest(''),
      'app/build.gradle.kts': gradle('    buildTypes { create("beta") {} }').replace(
        'minSdk = 24',
        'minSdk = System.getenv("X")',
      ),
    }),
  );
  const log = sarifLog(
    { title: 'kelp', summary: { blocker: 0, warning: 0, note: 0, accepted: 0 }, findings },
    { version: '1.2.3', rules: rules.map(({ meta }) => meta), lengthOf: () => undefined },
  ) as unknown as Log;

  it('is a log of version 2.1.0 with its rules', () => {
    expect(log.version).toBe('2.1.0');
    expect(log.runs).toHaveLength(1);
    const { driver } = log.runs[0]!.tool;
    expect(driver.name).toBe('Syndexa');
    expect(new URL(driver.informationUri).protocol).toBe('https:');
    expect(new Set(driver.rules.map(({ helpUri }) => new URL(helpUri).href)).size).toBe(rules.length);
    expect(log.runs[0]!.originalUriBaseIds).toHaveProperty('%SRCROOT%');
    expect(driver.rules.map(({ id }) => id)).toEqual(rules.map(({ meta }) => meta.id));
  });

  it('gives every finding its rule, a level that the standard knows, and a region that counts from 1', () => {
    const { results, tool } = log.runs[0]!;
    expect(results).toHaveLength(findings.length);
    expect(new Set(results.map(({ level }) => level))).toEqual(new Set(['error', 'warning', 'note']));
    for (const { ruleId, ruleIndex, message, locations, partialFingerprints } of results) {
      expect(tool.driver.rules[ruleIndex]?.id).toBe(ruleId);
      expect(message.text).not.toBe('');
      expect(Object.values(partialFingerprints)[0]).toMatch(/^[0-9a-f]{16}/);
      for (const { physicalLocation } of locations) {
        expect(physicalLocation.artifactLocation.uri).not.toMatch(/^\/|\\| /);
        const { startLine, startColumn, endLine, endColumn } = physicalLocation.region;
        expect(startLine).toBeGreaterThanOrEqual(1);
        expect(startColumn).toBeGreaterThanOrEqual(1);
        expect([endLine! > startLine!, endColumn! >= startColumn!]).toContain(true);
      }
    }
  });
});
