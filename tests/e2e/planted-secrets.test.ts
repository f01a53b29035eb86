import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import type { Command } from 'commander';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { routes, type RouteSpec } from '../../src/api/routes.js';
import { paintFor } from '../../src/cli/io.js';
import { buildProgram } from '../../src/cli/program.js';
import { syndexa } from '../support/cli.js';
import { approve, http, temporaryFolder } from '../support/service.js';
import { filesBelow, root } from '../support/trees.js';
import { recorder } from '../support/recorder.js';

// Secrets are planted wherever there is room for one, and the network says them back in every form it can. Whatever is
// then run, none of them may turn up in an output, a log, the record or a file.

const planted = {
  IN_FILE: 'planted/file+key=a1b2c3',
  IN_ENV: 'planted env "key" d4e5f6',
};
let home: string;
let temporary: string;
let evil: Server;
let served: ChildProcess;
let url: string;
let log = '';
let seen = 0;
const outputs: string[] = [];
const env = () => ({
  SYNDEXA_URL: url,
  SYNDEXA_SECRET_IN_ENV: planted.IN_ENV,
  TMPDIR: temporary,
  SYNDEXA_TOKEN: '',
});

/** What the network answers: each time another status, and each form of the keys. */
function answer(count: number): { status: number; text: string } {
  const forms = Object.values(planted).flatMap((key) => [
    key,
    encodeURIComponent(key),
    Buffer.from(key).toString('base64'),
    Buffer.from(`x:${key}`).toString('base64'),
  ]);
  const said = forms.join(' | ');
  const list = [{ id: said, name: said, format: said, unit: said, app: said }];
  const bodies = [
    { status: 400, text: JSON.stringify({ error: { message: said, field: said } }) },
    { status: 401, text: JSON.stringify({ error: { message: said } }) },
    { status: 200, text: `<html>${said}</html>` },
    {
      status: 200,
      text: JSON.stringify({
        units: list,
        apps: list,
        references: list,
        applications: list,
        zones: list,
        next: null,
        total: 1,
      }),
    },
    { status: 500, text: said },
    { status: 302, text: said },
    { status: 200, text: said },
  ];
  return bodies[count % bodies.length]!;
}

beforeAll(async () => {
  home = temporaryFolder();
  temporary = temporaryFolder();
  evil = createServer((_, response) => {
    const { status, text } = answer(seen++);
    response.writeHead(status, { 'Content-Type': 'application/json', Location: 'http://127.0.0.1:1/' });
    response.end(text);
  });
  await new Promise<void>((resolve) => evil.listen(0, '127.0.0.1', resolve));
  const partner = `http://127.0.0.1:${(evil.address() as AddressInfo).port}`;
  writeFileSync(join(home, 'secrets'), `IN_FILE=${planted.IN_FILE}\n`, { mode: 0o600 });
  for (const name of Object.keys(planted)) approve(home, name, partner);
  served = spawn(
    process.execPath,
    [join(root, 'bin', 'run-bundle.cjs'), 'serve', '--port', '0', '--log-level', 'debug', '--root', home],
    {
      env: {
        ...process.env,
        SYNDEXA_HOME: home,
        SYNDEXA_PARTNERS: partner,
        SYNDEXA_STORE: `${partner}/store`,
        SYNDEXA_SECRET_IN_ENV: planted.IN_ENV,
        TMPDIR: temporary,
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    },
  );
  served.stderr!.setEncoding('utf8').on('data', (chunk: string) => (log += chunk));
  url = await new Promise<string>((resolve) =>
    served.stdout!.setEncoding('utf8').once('data', (line: string) => resolve(/http:\S+/.exec(line)![0])),
  );
  cpSync(join(root, 'demo', 'trees', 'tidewick'), join(home, 'tree'), { recursive: true });
  const roster = readFileSync(join(root, 'demo', 'roster.yaml'), 'utf8');
  mkdirSync(join(home, 'work'));
  writeFileSync(join(home, 'work', 'roster.yaml'), roster);
  writeFileSync(join(home, 'work', 'table.csv'), 'id,name\nCH-U-204418-QQQQ2222,x\n');
  await syndexa(['roster', 'import', join(home, 'work', 'roster.yaml'), '--yes'], home, { env: env() });
  const publisher = { name: 'Saltmarsh Software', domain: 'saltmarsh.example' };
  const credentials = {
    'cobalt-heron': { inventory: 'secret:IN_FILE' },
    marlstone: { console: 'secret:IN_ENV' },
  };
  const set = await http(
    `${url}/api/v1/publisher`,
    'PUT',
    { ...publisher, credentials },
    { 'If-Match': '*' },
  );
  expect([set.status, set.text]).toEqual([200, expect.any(String)]);
});
afterAll(() => {
  served.kill('SIGKILL');
  evil.close();
  rmSync(home, { recursive: true, force: true });
  rmSync(temporary, { recursive: true, force: true });
});

/** Every way in which a secret may show. */
function forms(key: string): string[] {
  const inside = Buffer.from(`x:${key}`).toString('base64').slice(4, -4);
  return [
    key,
    encodeURIComponent(key),
    JSON.stringify(key).slice(1, -1),
    Buffer.from(key).toString('base64').replace(/=+$/, '').slice(0, -1),
    inside,
  ];
}
function leaks(text: string): string[] {
  return Object.entries(planted).flatMap(([name, key]) =>
    forms(key).flatMap((form) =>
      text.includes(form)
        ? [`${name}: …${text.slice(Math.max(0, text.indexOf(form) - 60), text.indexOf(form) + 60)}…`]
        : [],
    ),
  );
}

function leaves(command: Command, path: string[] = []): { path: string[]; command: Command }[] {
  return command.commands.flatMap((sub) =>
    sub.commands.length > 0
      ? leaves(sub, [...path, sub.name()])
      : [{ path: [...path, sub.name()], command: sub }],
  );
}
/** Commands that go on until they are stopped, or work on other folders. */
const endless = ['serve', 'demo', 'docs', 'partner start'];
const commands = leaves(buildProgram(recorder(), paintFor(false), { code: 0 })).filter(
  ({ path }) => !endless.includes(path.join(' ')),
);
const values = new Map([
  ['dir', 'tree'],
  ['directory', 'tree'],
  ['title', 'tidewick'],
  ['id', 'tidewick'],
  ['network', 'cobalt-heron'],
  ['platform', 'android'],
  ['stage', 'production'],
  ['format', 'banner'],
  ['role', 'viewer'],
  ['host', 'a.example'],
]);

describe('no secret is seen', () => {
  it.each(commands.map(({ path, command }) => [path.join(' '), command] as const))(
    'in what %s prints',
    async (name, command) => {
      const wanted = (word: string, choices?: readonly string[]) =>
        choices?.[0] ??
        values.get(word.replace(/\W|s$/g, '')) ??
        (/file/.test(word) ? 'work/table.csv' : 'secret:IN_FILE');
      const args = [
        ...name.split(' '),
        ...command.registeredArguments.flatMap((argument) =>
          argument.required ? [wanted(argument.name(), argument.argChoices)] : [],
        ),
        ...command.options.flatMap((option) =>
          option.mandatory ? [option.long!, wanted(option.long!.slice(2), option.argChoices)] : [],
        ),
      ];
      const takesNetwork = command.options.some(({ long }) => long === '--network');
      const networks =
        takesNetwork && !args.includes('--network')
          ? [[], ['--network', 'marlstone'], ['--network', 'cobalt-heron']]
          : [[]];
      for (const network of networks)
        for (const json of command.options.some(({ long }) => long === '--json') ? [[], ['--json']] : [[]]) {
          const { out, err } = await syndexa([...args, ...network, ...json], home, {
            env: env(),
            input: `${planted.IN_FILE}\n`,
          });
          outputs.push(out + err);
          expect(leaks(out + err)).toEqual([]);
        }
    },
  );

  it.each(Object.entries<RouteSpec>(routes))('in what the call %s answers', async (_, { method, path }) => {
    const filled = path
      .replace('{title}', 'tidewick')
      .replace('{network}', 'cobalt-heron')
      .replace(/\{\w+\}/g, 'nothing');
    const bodies: unknown[] =
      method === 'get'
        ? [undefined]
        : [
            {},
            { network: 'cobalt-heron' },
            { network: 'marlstone', dryRun: false },
            {
              network: planted.IN_FILE,
              value: planted.IN_ENV,
              source: planted.IN_FILE,
              token: planted.IN_ENV,
            },
            `{"broken": "${planted.IN_FILE}`,
          ];
    for (const body of bodies)
      for (const accept of ['application/json', 'text/event-stream']) {
        const { text } = await http(`${url}/api/v1${filled}`, method.toUpperCase(), body, {
          Accept: accept,
          'Syndexa-Who': 'a tester',
        });
        outputs.push(text);
        expect(leaks(text)).toEqual([]);
      }
  });

  it('in the log, the record, or any file but that of the secrets', async () => {
    expect(seen).toBeGreaterThan(20);
    expect(outputs.length).toBeGreaterThan(100);
    const ended = new Promise((resolve) => served.once('close', resolve));
    served.kill('SIGTERM');
    await ended;
    expect(log.length).toBeGreaterThan(100);
    expect(leaks(log)).toEqual([]);
    for (const folder of [home, temporary])
      for (const [path, bytes] of Object.entries(filesBelow(folder)))
        if (path !== 'secrets') expect([path, leaks(bytes.toString('latin1'))]).toEqual([path, []]);
  });
});
