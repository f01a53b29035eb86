import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { answers, connect, homeFolder } from '../../src/cli/connect.js';
import { exit } from '../../src/cli/io.js';
import { recorder } from '../support/recorder.js';
import { testService, type TestService } from '../support/service.js';

let service: TestService;
let folder: string;
beforeAll(async () => {
  service = await testService();
  folder = mkdtempSync(join(tmpdir(), 'syndexa-connect-'));
});
afterAll(async () => {
  await service.stop();
  rmSync(folder, { recursive: true, force: true });
});

/** Which service is found, and whether it is of the command's own. */
async function found(env: Record<string, string>) {
  const { client, own, close } = await connect(recorder({ env }));
  const answered = await client.call('listTitles');
  await close();
  return { url: client.url, own, answered };
}

describe('the data folder', () => {
  it.each([
    [{ SYNDEXA_HOME: '/data', XDG_DATA_HOME: '/xdg' }, '/data'],
    [{ SYNDEXA_HOME: '', XDG_DATA_HOME: '/xdg' }, '/xdg/syndexa'],
    [{ XDG_DATA_HOME: '' }, expect.stringMatching(/\/\.local\/share\/syndexa$/)],
  ])('of %j', (env, expected) => {
    expect(homeFolder(env)).toEqual(expected);
  });
});

describe('a command finds the service', () => {
  it('that SYNDEXA_URL names, with or without a slash at the end', async () => {
    for (const url of [service.url, `${service.url}/`])
      expect(await found({ SYNDEXA_URL: url, SYNDEXA_HOME: folder })).toMatchObject({
        url: service.url,
        own: false,
      });
  });

  it('that announced itself in the data folder; otherwise it starts one for itself', async () => {
    const card = join(folder, 'service.json');
    const at = (text: string) => {
      writeFileSync(card, text);
      return found({ SYNDEXA_HOME: folder });
    };
    expect(await at(JSON.stringify({ url: service.url }))).toMatchObject({ url: service.url, own: false });
    for (const text of ['{', 'null', '{"url":5}', '{"url":"http://127.0.0.1:1"}'])
      expect(await at(text)).toMatchObject({ own: true, answered: [] });
  });

  it('which only answers when it is a Syndexa service', async () => {
    const says = async (text: string) => {
      const server = createServer((_, response) => response.end(text));
      await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
      const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
      const isAnswer = await answers(url);
      server.close();
      return isAnswer;
    };
    expect(await answers(service.url)).toBe(true);
    expect(await answers('http://127.0.0.1:1')).toBe(false);
    expect(await says('{"service":"syndexa"}')).toBe(true);
    expect(await says('{"service":"other"}')).toBe(false);
    expect(await says('{"service":"syndexa"')).toBe(false);
  });
});

describe('a command that cannot find the service says why', () => {
  it.each<[Record<string, string>, string, number]>([
    [{ SYNDEXA_URL: 'http://127.0.0.1:1' }, 'No service answers at http://127.0.0.1:1.', exit.unreachable],
    ...['ftp://x', 'http://', 'http://a b', 'http://u@h', 'http://h/path', 'http://h?x', 'xhttp://h'].map(
      (url) =>
        [
          { SYNDEXA_URL: url },
          `SYNDEXA_URL is "${url}", which is not the address of a service.`,
          exit.wrongUse,
        ] as [Record<string, string>, string, number],
    ),
    ...['a b', 'x'.repeat(201), 'né'].map(
      (token) =>
        [{ SYNDEXA_TOKEN: token }, 'SYNDEXA_TOKEN is not a token.', exit.wrongUse] as [
          Record<string, string>,
          string,
          number,
        ],
    ),
  ])('%j', async (env, message, code) => {
    await expect(found({ SYNDEXA_HOME: folder, ...env })).rejects.toMatchObject({
      message,
      code,
      fix: expect.any(String),
    });
  });

  it('takes every token that the service could have made', async () => {
    const env = { SYNDEXA_URL: service.url, SYNDEXA_TOKEN: `sxt-${'x'.repeat(43)}` };
    expect(await found(env)).toMatchObject({ own: false });
  });
});
