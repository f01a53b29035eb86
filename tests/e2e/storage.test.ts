import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { syndexa, type CliResult } from '../support/cli.js';
import { addressOf } from '../support/serve.js';
import { http, temporaryFolder } from '../support/service.js';
import { root } from '../support/trees.js';

let home: string;
const services: ChildProcess[] = [];
beforeEach(() => {
  home = temporaryFolder();
});
afterEach(async () => {
  await Promise.all(services.splice(0).map(end));
  rmSync(home, { recursive: true, force: true });
});

const bin = join(root, 'bin', 'syndexa');
const card = () => join(home, 'service.json');

async function end(service: ChildProcess): Promise<void> {
  if (service.exitCode !== null || service.signalCode !== null) return;
  service.kill('SIGTERM');
  await once(service, 'exit');
}

/** A service that a person started: when it listens, its address. */
async function serve(): Promise<{ service: ChildProcess; url: string }> {
  const service = spawn(process.execPath, [bin, 'serve', '--port', '0'], {
    env: { ...process.env, SYNDEXA_HOME: home },
    stdio: ['ignore', 'pipe', 'ignore'],
  });
  services.push(service);
  return { service, url: await addressOf(service) };
}

/** A command of a shell in which `$S` is the program. */
async function shell(command: string): Promise<CliResult> {
  const child = spawn('bash', ['-c', command], {
    cwd: home,
    env: { ...process.env, SYNDEXA_HOME: home, NO_COLOR: '1', S: bin },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  const read = async (stream: NodeJS.ReadableStream) => {
    let text = '';
    for await (const chunk of stream) text += String(chunk);
    return text;
  };
  const [out, err] = await Promise.all([read(child.stdout), read(child.stderr)]);
  if (child.exitCode === null) await once(child, 'exit');
  return { code: child.exitCode ?? -1, out, err };
}

/** One clear line, what to do, and nothing of our insides. */
function refused({ code, err }: CliResult, says: string): void {
  expect(err).toContain(says);
  expect(err).not.toMatch(/\n\s+at |node:|Error:/);
  const lines = err
    .trim()
    .split('\n')
    .filter((line) => !line.startsWith('▲'));
  expect(lines.length).toBeLessThanOrEqual(2);
  expect(code).toBe(2);
}

describe('two services on one data folder', () => {
  it('are not: the second ends and says where the first is; the first and its card stay', async () => {
    const { url } = await serve();
    const second = await syndexa(['serve', '--port', '0'], home);
    expect(second.code).toBe(4);
    expect(second.err).toContain(`A service is already running on this data folder: ${url}`);
    expect(JSON.parse(readFileSync(card(), 'utf8'))).toMatchObject({ url });
    expect((await http(`${url}/healthz`)).status).toBe(200);
  });

  it('that start at once leave one', async () => {
    const started = await Promise.allSettled([serve(), serve(), serve()]);
    expect(started.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
  });

  it.each([
    ['of a process that is gone', { url: 'http://127.0.0.1:9', pid: 2 ** 22 + 1 }],
    ['of another process of that number', { url: 'http://127.0.0.1:9', pid: process.pid }],
    ['that is damaged', '{"url"'],
  ])('a card %s is replaced', async (_, content) => {
    writeFileSync(card(), typeof content === 'string' ? content : JSON.stringify(content));
    const { service, url } = await serve();
    expect(JSON.parse(readFileSync(card(), 'utf8'))).toEqual({ url, pid: service.pid });
    await end(service);
    expect(existsSync(card())).toBe(false);
  });

  it('one that ends leaves the card of another', async () => {
    const { service } = await serve();
    const other = '{"url":"http://127.0.0.1:9","pid":1}';
    writeFileSync(card(), other);
    await end(service);
    expect(readFileSync(card(), 'utf8')).toBe(other);
  });
});

describe('a record that another process writes into', () => {
  it('is waited for, then said to be busy: no error of ours', async () => {
    const { url } = await serve();
    const db = new Database(join(home, 'syndexa.sqlite'));
    db.exec('begin immediate');
    const add = (id: string) =>
      syndexa(['title', 'add', id, '--name', id, '--android', `example.brine.${id}`, '--json'], home);
    const waiting = add('kelp');
    await new Promise((resolve) => setTimeout(resolve, 1_500));
    db.exec('rollback');
    expect((await waiting).code).toBe(0);
    db.exec('begin immediate');
    const { code, out } = await add('dulse');
    db.exec('rollback');
    db.close();
    expect(JSON.parse(out)).toMatchObject({ code: 'busy', status: 503 });
    expect(code).toBe(3);
    expect((await http(`${url}/healthz`)).status).toBe(200);
  });
});

describe('a data folder that cannot be used', () => {
  it('a file', async () => {
    const file = join(home, 'file');
    writeFileSync(file, 'mine', { mode: 0o644 });
    for (const command of [
      ['title', 'list'],
      ['serve', '--port', '0'],
      ['token', 'list'],
    ])
      refused(await syndexa(command, home, { env: { SYNDEXA_HOME: file } }), 'cannot be used');
    refused(
      await syndexa(['title', 'list'], home, { env: { SYNDEXA_HOME: join(file, 'x') } }),
      'cannot be used',
    );
    expect(statSync(file).mode & 0o777).toBe(0o644);
  });

  it('a folder where the record should be', async () => {
    mkdirSync(join(home, 'syndexa.sqlite'));
    refused(await syndexa(['title', 'list'], home), 'cannot be used');
  });

  it('a record that is something else', async () => {
    writeFileSync(
      join(home, 'syndexa.sqlite'),
      'Not a database, but long enough to be looked at. '.repeat(99),
    );
    refused(await syndexa(['title', 'list'], home), 'is damaged, or is not a database of Syndexa');
  });

  it('a place where nothing can be written', async () => {
    refused(
      await syndexa(['title', 'list'], home, { env: { SYNDEXA_HOME: '/proc/kelp' } }),
      'cannot be used',
    );
  });

  it('a disk that takes no more', async () => {
    await syndexa(['title', 'list'], home);
    // A limit on the size of files stands for the end of the disk.
    const add = '"$S" title add kelp --name Kelp --android example.brine.kelp';
    refused(await shell(`ulimit -f 8; ${add}`), 'The data folder');
    const { code } = await shell(add);
    expect(code).toBe(0);
  });

  it('as JSON, with --json', async () => {
    const { out, code } = await syndexa(['title', 'list', '--json'], home, {
      env: { SYNDEXA_HOME: '/proc/kelp' },
    });
    expect(code).toBe(2);
    expect(JSON.parse(out)).toMatchObject({
      code: 'wrong-use',
      fix: expect.stringContaining('SYNDEXA_HOME'),
    });
  });
});

describe('an output that cannot be written', () => {
  it('a full disk ends with 2 and one line', async () => {
    refused(await shell('"$S" network list > /dev/full'), 'The output cannot be written');
  });

  it('a reader that stops early is no failure', async () => {
    const { err, out } = await shell(
      'set -o pipefail; "$S" network list --json | head -c 10; echo "${PIPESTATUS[0]}"',
    );
    expect([err, out.endsWith('\n0\n') || out.endsWith('0\n')]).toEqual(['', true]);
  });

  it('no output at all', async () => {
    expect((await shell('"$S" network list >&- 2>&-')).code).not.toBe(3);
  });
});
