import { createHash } from 'node:crypto';
import { request } from 'node:http';
import { afterEach, describe, expect, it } from 'vitest';
import { settings } from '../../src/api/settings.js';
import { http, testService, type Answer, type TestService } from '../support/service.js';
import { androidFiles } from '../support/trees.js';

let service: TestService;
afterEach(() => service.stop());

const code = 'app/src/main/java/example/brine/kelp';
const hash = (text: string) => createHash('sha256').update(text).digest('hex');

/** Sends a tree, and surveys it. */
async function survey(files: Record<string, string>): Promise<Answer> {
  return http(`${await sent(files)}/survey`, 'POST', {});
}

/** Sends a tree; returns the address of its snapshot. */
async function sent(files: Record<string, string>): Promise<string> {
  const api = `${service.url}/api/v1`;
  const entries = Object.entries(files);
  const { body } = await http(`${api}/snapshots`, 'POST', {
    name: 'kelp',
    files: entries.map(([path, text]) => ({ path, hash: hash(text), size: Buffer.byteLength(text) })),
  });
  const blobs = entries
    .filter(([, text]) => body.missing.includes(hash(text)))
    .map(([, text]) => ({ hash: hash(text), base64: Buffer.from(text).toString('base64') }));
  await http(`${api}/blobs`, 'POST', { blobs });
  return `${api}/snapshots/${body.id}`;
}

const problems = ({ body }: Answer) =>
  body.problems.map(({ path, message }: { path: string; message: string }) => `${path}: ${message}`);

describe('source files that break a parser, or keep it busy for ever', () => {
  it.each([
    ['breaks the runtime', 'Odd.java', 'a<'.repeat(100_000)],
    ['breaks the runtime', 'Odd.kt', '@A '.repeat(20_000)],
    ['breaks the runtime', 'Odd.m', '() => '.repeat(12_000)],
    ['opens too many strings', 'Odd.kt', '"${'.repeat(10_000)],
    ['nests too many blocks', 'Odd.swift', 'if a {'.repeat(20_000)],
    ['nests too many calls', 'Odd.java', 'f('.repeat(40_000)],
  ])('cost only themselves: one that %s (%s)', async (_why, name, text) => {
    service = await testService({ env: { SYNDEXA_FILE_SECONDS: '1' } });
    const files = androidFiles();
    const plain = await survey(files);
    expect(plain.status).toBe(200);
    const hostile = await survey({ ...files, [`${code}/${name}`]: text });
    expect(hostile.status).toBe(200);
    // It is read in the end, or is reported; whatever else the tree says is as before.
    for (const problem of problems(hostile)) expect(problem).toMatch(/Odd\.\w+: Not (read|parsed): /);
    expect(hostile.body.facts).toEqual(plain.body.facts);
    expect(hostile.body.editions).toEqual(plain.body.editions);
    expect((await survey(files)).body).toEqual(plain.body);
  });

  it('are not tried again and again', async () => {
    service = await testService({ env: { SYNDEXA_FILE_SECONDS: '1' } });
    const files = androidFiles({ [`${code}/Odd.java`]: 'a<'.repeat(100_000) });
    const first = await survey(files);
    const from = performance.now();
    const second = await survey({ ...files, 'app/src/main/res/values/more.xml': '<resources/>' });
    expect(problems(second)).toEqual(problems(first));
    expect(problems(second)).toEqual([expect.stringContaining('takes too long or too much memory')]);
    expect(performance.now() - from).toBeLessThan(900);
  });
});

describe('work on a tree', () => {
  const costly = Object.fromEntries(
    Array.from({ length: 12 }, (_, at) => [`${code}/Odd${at}.java`, `// ${at}\n${'a<'.repeat(100_000)}`]),
  );

  it('that takes too long gives what was read until then, and says so', async () => {
    service = await testService({ env: { SYNDEXA_TREE_SECONDS: '4', SYNDEXA_FILE_SECONDS: '1' } });
    const answer = await survey({ ...androidFiles(), ...costly });
    expect(answer.status).toBe(200);
    expect(answer.body.editions).toHaveLength(1);
    for (const path of Object.keys(costly))
      expect(problems(answer)).toContainEqual(
        expect.stringContaining(`${path}: Not parsed: it takes too long`),
      );
  });

  it('lists no more facts and findings than it may, and counts all of them', async () => {
    service = await testService({ env: { SYNDEXA_TREE_FACTS: '100', SYNDEXA_TREE_FINDINGS: '10' } });
    const calls = Array.from({ length: 300 }, (_, at) => `val a${at} = "CH-U-310772-AAAA${1000 + at}"`);
    const files = { ...androidFiles(), [`${code}/Many.kt`]: calls.join('\n') };
    const api = `${service.url}/api/v1`;
    const answer = await survey(files);
    expect(answer.body.facts).toHaveLength(100);
    expect(problems(answer)[0]).toMatch(/: Partial list: \d{3} more facts are not listed\.$/);
    const { body } = await http(`${api}/snapshots`, 'POST', {
      name: 'kelp',
      files: Object.entries(files).map(([path, text]) => ({ path, hash: hash(text), size: 1 })),
    });
    const { body: report } = await http(`${api}/snapshots/${body.id}/check`, 'POST', {});
    const { blocker, warning, note } = report.summary;
    expect(report.findings.length + (report.leftOut ?? 0)).toBe(blocker + warning + note);
    expect(report.findings.length).toBeLessThanOrEqual(10);
  });

  it('is done, even where the work before it ended because nobody waited for that any more', async () => {
    service = await testService({ env: { SYNDEXA_WORKERS: '1' } });
    const [busy, other] = [await sent({ ...androidFiles(), ...costly }), await sent(androidFiles())];
    const headers = { 'Content-Type': 'application/json' };
    const left = request(`${busy}/survey`, { method: 'POST', headers });
    left.on('error', () => undefined).end('{}');
    await new Promise((resolve) => setTimeout(resolve, 500));
    const waiting = http(`${other}/survey`, 'POST', {});
    await new Promise((resolve) => setTimeout(resolve, 200));
    left.destroy();
    expect((await waiting).status).toBe(200);
  });

  it('ends when the service stops, with a word to whoever waits for it', async () => {
    service = await testService();
    const waiting = survey({ ...androidFiles(), ...costly });
    await new Promise((resolve) => setTimeout(resolve, 700));
    const from = performance.now();
    const [answer] = await Promise.all([waiting, service.close()]);
    expect(answer.body).toMatchObject({ status: 503, code: 'stopping' });
    expect(performance.now() - from).toBeLessThan(5_000);
  });
});

describe('the settings of the service', () => {
  it('are whole numbers in their range, or the service does not start', async () => {
    service = await testService();
    const start = (value: string) => testService({ env: { SYNDEXA_FILE_SECONDS: value } });
    for (const value of ['0', '-1', '2.5', 'two', '1e3', '9999'])
      await expect(start(value)).rejects.toThrow(`SYNDEXA_FILE_SECONDS is ${JSON.stringify(value)}`);
    await (await start(' 3 ')).stop();
    await (await start('')).stop();
  });

  it('have usual values in their ranges, and variables of their own', () => {
    const all = Object.values(settings);
    expect(new Set(all.map(({ variable }) => variable)).size).toBe(all.length);
    for (const { usual, min, max } of all) expect(usual >= min && usual <= max).toBe(true);
  });
});
