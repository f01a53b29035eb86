import { describe, expect, it } from 'vitest';
import type { CheckReport, Finding, RuleMeta } from '../../../src/core/checks/model.js';
import { sarifLog } from '../../../src/core/checks/sarif-report.js';
import { findingOf } from '../../support/findings.js';

const meta = (id: string, severity: RuleMeta['severity']) =>
  ({ id, severity, ifShipped: 'It breaks.', mend: 'Mend it.', messages: {}, needsTitle: false }) as RuleMeta;

/** The first run of a log. */
function runOf(...findings: Finding[]) {
  const log = sarifLog({ findings } as CheckReport, {
    version: '1.0.0',
    rules: [meta('unit-id/unknown', 'blocker'), meta('app-id/missing', 'note')],
    lengthOf: (path) => (path === 'old.txt' ? 12 : undefined),
  });
  return (log as { runs: { tool: { driver: { rules: unknown[] } }; results: Record<string, unknown>[] }[] })
    .runs[0]!;
}
const resultOf = (more: Partial<Finding> = {}) => runOf(findingOf(more)).results[0]!;

describe('a check as a SARIF log', () => {
  it('describes its rules, each with a page', () => {
    expect(runOf().tool.driver.rules).toMatchObject([
      {
        id: 'unit-id/unknown',
        shortDescription: { text: 'It breaks.' },
        help: { text: 'Mend it.' },
        helpUri: 'https://syndexa.example/rules/unit-id-unknown',
        defaultConfiguration: { level: 'error' },
      },
      { id: 'app-id/missing', defaultConfiguration: { level: 'note' } },
    ]);
  });

  it('has a result for each finding, with its rule, place and fingerprint', () => {
    expect(resultOf()).toMatchObject({
      ruleId: 'app-id/missing',
      ruleIndex: 1,
      level: 'warning',
      message: { text: 'It is missing.' },
      locations: [
        {
          physicalLocation: { artifactLocation: { uri: 'a.xml' }, region: { startLine: 3, startColumn: 5 } },
        },
      ],
      partialFingerprints: { 'syndexa/v1': 'f1' },
      properties: { platform: 'android', variants: ['debug'], network: 'cobalt-heron', placement: null },
    });
    for (const key of ['relatedLocations', 'fixes', 'suppressions'])
      expect(resultOf()).not.toHaveProperty(key);
    expect(resultOf({ place: null }).locations).toEqual([]);
    expect(resultOf({ rule: 'engine/rule-failed' })).not.toHaveProperty('ruleIndex');
  });

  it('names the places that a value came through', () => {
    const place = { path: 'b.xml', line: 7, column: 1 };
    const chain = [
      { what: 'manifest', value: '@string/id', place },
      { what: 'string', value: null, place },
      { what: 'nowhere', value: 'x', place: null },
    ];
    expect(resultOf({ chain }).relatedLocations).toMatchObject([
      { message: { text: 'manifest: @string/id' }, physicalLocation: { region: { startLine: 7 } } },
      { message: { text: 'string' } },
    ]);
  });

  it('says what wiring would do, file by file', () => {
    const fix = {
      edits: [
        { path: 'a.xml', start: 4, end: 6, text: 'x' },
        { path: 'b.xml', start: 0, end: 0, text: 'y' },
        { path: 'a.xml', start: 9, end: 9, text: 'z' },
      ],
      content: [
        { path: 'old.txt', text: 'whole' },
        { path: 'new.txt', text: 'made' },
      ],
    };
    expect(resultOf({ fix }).fixes).toMatchObject([
      {
        description: { text: 'Add it.' },
        artifactChanges: [
          {
            artifactLocation: { uri: 'a.xml' },
            replacements: [
              { deletedRegion: { charOffset: 4, charLength: 2 }, insertedContent: { text: 'x' } },
              { deletedRegion: { charOffset: 9, charLength: 0 }, insertedContent: { text: 'z' } },
            ],
          },
          { artifactLocation: { uri: 'b.xml' } },
          {
            artifactLocation: { uri: 'old.txt' },
            replacements: [
              { deletedRegion: { charOffset: 0, charLength: 12 }, insertedContent: { text: 'whole' } },
            ],
          },
          {
            artifactLocation: { uri: 'new.txt' },
            replacements: [
              { deletedRegion: { charOffset: 0, charLength: 0 }, insertedContent: { text: 'made' } },
            ],
          },
        ],
      },
    ]);
  });

  it('says which findings are accepted, until their day is past', () => {
    const accepted = { reason: 'known', until: '2026-06-01', who: 'ana', ended: false };
    expect(resultOf({ accepted }).suppressions).toEqual([
      { kind: 'external', status: 'accepted', justification: 'known (ana, until 2026-06-01)' },
    ]);
    expect(resultOf({ accepted: { ...accepted, ended: true } })).not.toHaveProperty('suppressions');
  });
});
