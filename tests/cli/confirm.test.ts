import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { isConfirmed } from '../../src/cli/confirm.js';
import { exit, paintFor } from '../../src/cli/io.js';
import { run } from '../../src/cli/program.js';
import { writeRoster } from '../../src/core/roster/document.js';
import { http, testService, type TestService } from '../support/service.js';
import { recorder } from '../support/recorder.js';
import { kelp, placement, root } from '../support/titles.js';

describe('a question', () => {
  const asked: string[] = [];
  const answered = async (reply: string | null, yes?: boolean) => {
    const io = recorder({
      ask: (question) => {
        asked.push(question);
        return Promise.resolve(reply);
      },
    });
    return { isYes: await isConfirmed(io, 'Remove Kelp?', yes), text: io.text };
  };
  beforeEach(() => void (asked.length = 0));

  it.each(['y', 'Y', 'yes', ' YES \n'])('is agreed to by %j', async (reply) => {
    expect(await answered(reply)).toEqual({ isYes: true, text: '' });
    expect(asked).toEqual(['Remove Kelp? [y/N] ']);
  });

  it.each(['n', 'no', '', 'yep', 'not yes', 'y n'])('is refused by %j', async (reply) => {
    expect(await answered(reply)).toEqual({ isYes: false, text: 'Nothing was changed.\n' });
  });

  it('is not asked of somebody who agreed before', async () => {
    expect(await answered(null, true)).toEqual({ isYes: true, text: '' });
    expect(asked).toEqual([]);
  });

  it('is wrong use where nobody is there to answer', async () => {
    await expect(answered(null)).rejects.toMatchObject({
      message: 'There is no terminal to ask for confirmation.',
      code: exit.wrongUse,
      fix: 'Use --yes to continue without confirmation.',
    });
  });
});

describe('a command that asks', () => {
  let service: TestService;
  beforeAll(async () => {
    service = await testService();
    const title = kelp({
      placements: { footer: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222') },
    });
    await http(`${service.url}/api/v1/titles`, 'POST', { id: 'kelp', title });
    writeFileSync(
      join(service.home, 'roster.yaml'),
      writeRoster({ syndexa: 1, titles: { kelp: { ...title, name: 'Other' } } }),
    );
    const text = readFileSync(join(root, 'profiles', 'cobalt-heron.yaml'), 'utf8');
    writeFileSync(join(service.home, 'heron.yaml'), text.replace('name: Cobalt Heron', 'name: Heron'));
    writeFileSync(join(service.home, 'own.yaml'), text.replace('id: cobalt-heron', 'id: own-heron'));
    await syndexa('y', 'network', 'add', 'own.yaml');
  });
  afterAll(() => service.stop());

  async function syndexa(reply: string | null, ...args: string[]) {
    const asked: string[] = [];
    const io = recorder({
      ask: (question) => {
        asked.push(question);
        return Promise.resolve(reply);
      },
      cwd: service.home,
      env: { SYNDEXA_HOME: service.home, SYNDEXA_URL: service.url },
    });
    const code = await run(args, io, paintFor(false));
    return { code, asked, out: io.text, err: io.errors };
  }
  /** All that the service has on record. */
  const record = async () =>
    Promise.all(
      ['titles/kelp', 'networks/cobalt-heron', 'networks'].map(
        async (path) => (await http(`${service.url}/api/v1/${path}`)).body,
      ),
    );

  it.each([
    ['Remove Kelp with its 1 placement? [y/N] ', ['title', 'remove', 'kelp']],
    [/^Remove these \d+ fields\? \[y\/N\] $/, ['title', 'set', 'kelp', '--leave', 'cobalt-heron']],
    ['Import 1 change? [y/N] ', ['roster', 'import', 'roster.yaml']],
    ['Replace the built-in profile of cobalt-heron? [y/N] ', ['network', 'add', 'heron.yaml']],
    [
      'Remove the profile of Cobalt Heron, which exists only in the data folder? [y/N] ',
      ['network', 'remove', 'own-heron'],
    ],
  ])('%s changes nothing when the answer is no', async (question, args) => {
    const before = await record();
    const { code, asked, out } = await syndexa('n', ...args);
    expect(asked).toEqual([typeof question === 'string' ? question : expect.stringMatching(question)]);
    expect([code, out.endsWith('Nothing was changed.\n')]).toEqual([exit.refused, true]);
    expect((await syndexa(null, ...args)).code).toBe(exit.wrongUse);
    expect(await record()).toEqual(before);
  });

  it('does it when the answer is yes', async () => {
    expect((await syndexa('y', 'network', 'remove', 'own-heron')).code).toBe(exit.clean);
    expect((await syndexa('yes', 'roster', 'import', 'roster.yaml')).code).toBe(exit.clean);
    expect((await record())[0]).toMatchObject({ title: { name: 'Other' } });
    expect((await syndexa('y', 'title', 'remove', 'kelp')).code).toBe(exit.clean);
    expect((await http(`${service.url}/api/v1/titles/kelp`)).status).toBe(404);
  });
});
