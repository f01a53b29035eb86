import Database from 'better-sqlite3';
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { ProblemError } from '../../src/cli/client.js';
import { connect } from '../../src/cli/connect.js';
import type { Io } from '../../src/cli/io.js';
import { noteError } from '../../src/service/error-log.js';
import { kelp } from '../support/trees.js';
import { http, testService, type TestService } from '../support/service.js';

let service: TestService;
beforeEach(async () => {
  service = await testService({ env: { SYNDEXA_SECRET_HERON: 'plain-to-see-4711' } });
});
afterEach(() => service.stop());

/** Breaks a title in the record, so that reading it is an error that nobody foresaw. */
async function breakTitle(stages: string): Promise<void> {
  const made = await http(`${service.url}/api/v1/titles`, 'POST', { id: 'kelp', title: kelp() });
  expect(made.status).toBe(201);
  const db = new Database(join(service.home, 'syndexa.sqlite'));
  db.prepare('update titles set stages = ?').run(stages);
  db.close();
}

it('an error of its own says where it is written down, without secrets, and for the owner alone', async () => {
  await breakTitle('{ plain-to-see-4711');
  const { status, body } = await http(`${service.url}/api/v1/titles/kelp`);
  const file = join(service.home, 'errors.log');
  expect([status, body.code]).toEqual([500, 'internal']);
  expect(body.fix).toContain(file);
  const text = readFileSync(file, 'utf8');
  expect(text).toMatch(
    /^\d{4}-\d\d-\d\dT[\d:.]+Z {2}syndexa 0\.0\.0-test {2}\/api\/v1\/titles\/kelp\n\w*Error/,
  );
  expect(text).not.toContain('plain-to-see-4711');
  expect(statSync(file).mode & 0o777).toBe(0o600);
});

it('so does one of a service that was started for one command', async () => {
  await breakTitle('{');
  await service.close();
  const { client, close, own } = await connect({
    env: { SYNDEXA_HOME: service.home },
    err: () => undefined,
  } as unknown as Io);
  const failed: unknown = await client
    .call('showTitle', { params: { title: 'kelp' } })
    .catch((error: unknown) => error);
  await close();
  expect(own).toBe(true);
  expect(failed).toBeInstanceOf(ProblemError);
  expect((failed as ProblemError).problem).toMatchObject({
    code: 'internal',
    fix: expect.stringContaining(join(service.home, 'errors.log')),
  });
});

it('the log of errors does not grow without end, and nothing is said of one that cannot be written', () => {
  const home = mkdtempSync(join(tmpdir(), 'syndexa-test-'));
  const entry = { error: new Error('odd'), at: new Date(0), version: '1' };
  writeFileSync(join(home, 'errors.log'), 'x'.repeat(1_000_001));
  expect(noteError(home, entry, (text) => text)).toBe(join(home, 'errors.log'));
  expect(statSync(join(home, 'errors.log')).size).toBeLessThan(10_000);
  expect(statSync(join(home, 'errors.before.log')).size).toBe(1_000_001);
  rmSync(home, { recursive: true });
  expect(noteError(home, entry, (text) => text)).toBeUndefined();
});
