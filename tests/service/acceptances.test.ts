import { execFileSync } from 'node:child_process';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createHash } from 'node:crypto';
import { explain } from '../../src/core/facts/explain.js';
import { runSurvey } from '../../src/core/surveying.js';
import { http, testService, type TestService } from '../support/service.js';
import { androidFiles, kelp, manifest, namingClass, profiles, treeOf } from '../support/trees.js';

let service: TestService;
let now = new Date('2026-11-23T12:00:00Z');
const api = (path: string) => `${service.url}/api/v1${path}`;
const bad = androidFiles({ 'app/src/main/AndroidManifest.xml': namingClass(manifest('')) });

/** Sends a tree as the client would; gives its snapshot. */
async function send(files: Record<string, string>): Promise<string> {
  const blobs = Object.values(files).map((text) => ({
    hash: createHash('sha256').update(text).digest('hex'),
    base64: Buffer.from(text).toString('base64'),
  }));
  const listed = Object.entries(files).map(([path, text]) => ({
    path,
    hash: createHash('sha256').update(text).digest('hex'),
    size: text.length,
  }));
  const { body } = await http(api('/snapshots'), 'POST', { name: 'kelp', files: listed });
  await http(api('/blobs'), 'POST', { blobs });
  return body.id as string;
}

const check = async (snapshot: string, more: object = {}, headers: Record<string, string> = {}) =>
  http(api(`/snapshots/${snapshot}/check`), 'POST', { title: 'kelp', ...more }, headers);
const accept = (body: object) => http(api('/titles/kelp/accepted'), 'POST', body, { 'Syndexa-Who': 'ada' });

beforeAll(async () => {
  service = await testService({ now: () => now });
  const { name, stages, editions, networks } = kelp();
  await http(api('/titles'), 'POST', { id: 'kelp', title: { name, stages, editions, networks } });
});
afterAll(() => service.stop());

describe('an accepted finding', () => {
  const reason = 'the app ID comes with the next release';

  it('is shown and not counted, until its day is past', async () => {
    const snapshot = await send(bad);
    const { findings, summary } = (await check(snapshot)).body;
    expect(summary).toEqual({ blocker: 1, warning: 0, note: 0, accepted: 0 });
    const { fingerprint, rule, message } = findings[0];
    const accepted = await accept({ fingerprint, reason, until: '2026-12-01' });
    expect(accepted.body.acceptances).toEqual([
      { fingerprint, rule, message, reason, until: '2026-12-01', who: 'ada', at: now.toISOString() },
    ]);
    const after = (await check(snapshot)).body;
    expect(after.summary).toEqual({ blocker: 0, warning: 0, note: 0, accepted: 1 });
    expect(after.findings[0].accepted).toEqual({ reason, until: '2026-12-01', who: 'ada', ended: false });
    const sarif = (await check(snapshot, {}, { Accept: 'application/sarif+json' })).body;
    expect(sarif.runs[0].results[0].suppressions).toMatchObject([{ kind: 'external', status: 'accepted' }]);

    now = new Date('2026-12-02T00:00:00Z');
    const ended = (await check(snapshot)).body;
    expect(ended.summary.blocker).toBe(1);
    expect(ended.findings[0].accepted.ended).toBe(true);
    now = new Date('2026-11-23T12:00:00Z');
  });

  it('counts again once that is taken back', async () => {
    const snapshot = await send(bad);
    const [{ fingerprint }] = (await check(snapshot)).body.findings;
    expect((await http(api(`/titles/kelp/accepted/${fingerprint}`), 'DELETE')).body.acceptances).toEqual([]);
    expect((await check(snapshot)).body.summary.blocker).toBe(1);
    expect((await http(api(`/titles/kelp/accepted/${fingerprint}`), 'DELETE')).status).toBe(404);
  });

  it.each([
    ['a day that is past', { reason, until: '2026-11-22' }, 'past'],
    ['a day that is none', { reason, until: '2026-13-77' }, 'until'],
    ['no reason', { reason: ' ', until: '2026-12-01' }, 'reason'],
  ])('is refused for %s', async (_, body, text) => {
    const snapshot = await send(bad);
    const [{ fingerprint }] = (await check(snapshot)).body.findings;
    const answer = await accept({ fingerprint, ...body });
    expect(answer.status).toBe(422);
    expect(JSON.stringify(answer.body)).toContain(text);
  });

  it('must be one that somebody saw', async () => {
    expect((await accept({ fingerprint: 'f00df00df00df00d', reason, until: '2026-12-01' })).status).toBe(404);
  });
});

describe('a check against an earlier snapshot', () => {
  it('shows only what is new', async () => {
    const before = await send(bad);
    const worse = {
      ...bad,
      'app/src/main/AndroidManifest.xml': namingClass(manifest('')).replace(/.*INTERNET.*\n/, ''),
    };
    const { body } = await check(await send(worse), { against: before.slice(0, 10) });
    expect(body.findings.map(({ rule }: { rule: string }) => rule)).toEqual(['manifest/permission-missing']);
    expect(body.summary.blocker).toBe(1);
    expect(body.against).toEqual({ snapshot: before, known: 1 });
    expect((await check(before, { against: 'abcdef0123' })).status).toBe(404);
    expect((await check(before, { against: '%' })).status).toBe(422);
  });
});

describe('SARIF', () => {
  it('has fixes that, done to the tree, mend what they belong to', async () => {
    const files: Record<string, string> = {
      ...bad,
      'app/src/main/AndroidManifest.xml': namingClass(manifest('')).replace(/.*INTERNET.*\n/, ''),
    };
    const snapshot = await send(files);
    const log = (await check(snapshot, {}, { Accept: 'application/sarif+json' })).body;
    const results = log.runs[0].results.filter(({ fixes }: { fixes?: unknown }) => fixes);
    expect(results.length).toBeGreaterThan(1);
    for (const { fixes, partialFingerprints, ruleId } of results) {
      const mended = { ...files };
      for (const { artifactLocation, replacements } of fixes[0].artifactChanges) {
        const path = decodeURIComponent(artifactLocation.uri);
        let text = mended[path] ?? '';
        // From the end on, so that places before stay where they are.
        for (const { deletedRegion, insertedContent } of [...replacements].reverse()) {
          const { charOffset, charLength } = deletedRegion;
          text =
            text.slice(0, charOffset) + (insertedContent?.text ?? '') + text.slice(charOffset + charLength);
        }
        mended[path] = text;
      }
      const after = (await check(await send(mended))).body.findings.map(
        ({ fingerprint }: any) => fingerprint,
      );
      expect([ruleId, after.includes(partialFingerprints['syndexa/v1'])]).toEqual([ruleId, false]);
    }
  });
});

describe('JUnit XML', () => {
  it('is well-formed, and counts what a check counts', async () => {
    const { text, headers } = await check(await send(bad), {}, { Accept: 'application/junit+xml' });
    expect(headers['content-type']).toContain('application/junit+xml');
    execFileSync('xmllint', ['--noout', '-'], { input: text });
    expect(text).toMatch(/<testsuites name="Syndexa" tests="\d+" failures="1" errors="0">/);
    expect(text).toContain('file="app/src/main/AndroidManifest.xml" line="6"');
    expect(text.match(/<testcase/g)?.length).toBe(Number(/tests="(\d+)"/.exec(text)?.[1]));
  });
});

describe('a fact that is explained', () => {
  const { survey } = runSurvey(treeOf(androidFiles()), { name: 'kelp', profiles, title: null });
  it('gives its evidence in sentences, in the order of the chain', () => {
    expect(explain(survey, 'app-id debug')).toEqual([
      {
        says: 'In debug, the app ID of cobalt-heron is “CH-A-100001-SAMPLE0A” (in the manifest).',
        because: [
          'The manifest at app/src/main/AndroidManifest.xml:7:81 says “@string/heron”.',
          'The string heron at app/src/debug/res/values/ids.xml:2:5 says “CH-A-100001-SAMPLE0A”.',
        ],
      },
    ]);
  });
  it('is found by its place, and nothing is when no word fits', () => {
    expect(explain(survey, 'build.gradle.kts:12')).toHaveLength(1);
    expect(explain(survey, 'nowhere')).toEqual([]);
  });
});

describe('accepted findings in a document', () => {
  const finding = {
    rule: 'app-id/missing',
    message: 'm',
    reason: 'known',
    until: '2099-12-31',
    who: 'ann',
    at: '2026-11-23T12:00:00.000Z',
  };
  const bring = (titles: Record<string, object>, accepted: object | undefined, prune = false) =>
    http(api('/roster/import'), 'POST', {
      document: JSON.stringify({ syndexa: 1, titles, ...(accepted && { accepted }) }),
      prune,
    });
  const held = async (title: string) =>
    (await http(api(`/titles/${title}/accepted`))).body.acceptances?.map(
      ({ fingerprint }: { fingerprint: string }) => fingerprint,
    );
  const [one, two] = [{ name: 'One' }, { name: 'Two' }];

  it('are those of the titles that it names; other titles keep theirs', async () => {
    expect((await bring({ one, two }, { one: { a: finding }, two: { b: finding } })).status).toBe(200);
    expect([await held('one'), await held('two')]).toEqual([['a'], ['b']]);
    await bring({ one }, { one: { c: finding } });
    expect([await held('one'), await held('two')]).toEqual([['c'], ['b']]);
    await bring({ one, two }, { two: { d: finding } });
    expect([await held('one'), await held('two')]).toEqual([[], ['d']]);
  });

  it('stay as they are where it names none', async () => {
    await bring({ one, two: { name: 'Two again' } }, undefined);
    expect(await held('two')).toEqual(['d']);
  });

  it('of a title that is taken out, or that nobody knows, are refused', async () => {
    const { status, body } = await bring({ one }, { two: { d: finding } }, true);
    expect(status).toBe(422);
    expect(JSON.stringify(body.errors)).toContain('accepted.two');
    expect((await bring({}, { nobody: { d: finding } })).status).toBe(422);
    expect(await held('two')).toEqual(['d']);
  });
});
