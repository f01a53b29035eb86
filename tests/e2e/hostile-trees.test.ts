import { execFileSync } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { syndexa as command, type CliResult } from '../support/cli.js';
import { temporaryFolder, testService, type TestService } from '../support/service.js';
import { androidFiles, filesBelow, manifest } from '../support/trees.js';

// Names out of a tree reach terminals, logs and other programs: none of them may carry a control there.

const evil = 'ev\u001b[31mil\u202e\u0007\r\u009b2J';
const unprintable = /[\p{Cc}\p{Cs}\u061c\u200e\u200f\u2028-\u202e\u2066-\u2069\ufeff]/u;
const controls = (text: string) =>
  Array.from(text.replace(/[\n\t]/g, '')).filter((character) => unprintable.test(character));

const roster = `syndexa: 1
publisher: { name: Brine, domain: brine.example }
titles:
  kelp:
    name: Kelp
    editions:
      android: { identifier: example.brine.kelp }
    networks:
      cobalt-heron:
        android: { production: { app: CH-A-310772-QK4T8W2N } }
    placements:
      footer:
        format: banner
        units:
          cobalt-heron:
            android: { production: CH-U-310772-P4N7C2VJ }
`;

let home: string;
let tree: string;
let service: TestService;
beforeEach(async () => {
  home = temporaryFolder();
  tree = join(home, 'tree');
  service = await testService({ home });
  writeFileSync(join(home, 'roster.yaml'), roster);
  expect((await syndexa(['roster', 'import', join(home, 'roster.yaml'), '--yes'], home)).code).toBe(0);
});
afterEach(() => service.stop());

/** A command that finds a service running, which is faster than one that starts its own. */
function syndexa(
  args: readonly string[],
  at: string,
  options: { env?: Record<string, string>; input?: string } = {},
): Promise<CliResult> {
  return command(args, at, { ...options, env: { SYNDEXA_URL: service.url, ...options.env } });
}

function put(files: Record<string, string>): void {
  for (const [path, content] of Object.entries(files)) {
    mkdirSync(join(tree, path, '..'), { recursive: true });
    writeFileSync(join(tree, path), content);
  }
}

describe('a tree full of evil names', () => {
  beforeEach(() => {
    const files = androidFiles();
    put(files);
    put({
      [`app/src/main/java/${evil}\n/Spare.java`]: 'class Spare { String unit = "CH-U-310772-QQQQ2222"; }\n',
      [`app/src/main/res/values/${evil}.xml`]:
        '<resources><string name="x">CH-A-999999-QK4T8W2N</string></resources>\n',
      'app/src/release/res/values/ids.xml': `<resources>\n    <string name="heron">CH-I-310772-M6R9V3XC</string>\n<string name="&#x202e;x&#10;">CH-U-310772-QQQQ3333</string></resources>\n`,
      'app/src/main/AndroidManifest.xml': manifest(
        `<meta-data android:name="x&#x202e;&#10;■ blocker" android:value="CH-U-310772-QQQQ4444"/>`,
      ),
      'app/build.gradle.kts': files['app/build.gradle.kts']!.replace(
        'dependencies {',
        'dependencies {\n    implementation("example.evil\\u001b[2J:\\u202esdk:1.0\\n2")',
      ),
    });
    writeFileSync(
      Buffer.concat([
        Buffer.from(`${tree}/app/src/main/res/values/`),
        Buffer.from([0xff, 0x1b]),
        Buffer.from('.xml'),
      ]),
      '<resources><string name="broken">CH-U-310772-QQQQ5555</string>',
    );
  });

  it.each([
    ['survey'],
    ['survey', '--json'],
    ['survey', '--explain', 'unit-id'],
    ['check', '--title', 'kelp'],
    ['check', '--title', 'kelp', '--json'],
    ['check', '--title', 'kelp', '--format', 'sarif'],
    ['check', '--title', 'kelp', '--format', 'junit'],
    ['wire', '--title', 'kelp'],
    ['wire', '--title', 'kelp', '--json'],
    ['wire', '--title', 'kelp', '--write'],
    ['placebook', '--check', '--title', 'kelp'],
  ])('is printed by %s %s %s without a control', async (name, ...options) => {
    for (const env of [{}, { FORCE_COLOR: '1', NO_COLOR: '' }] as Record<string, string>[]) {
      const { out, err } = await syndexa([name, tree, ...options], home, { env });
      const ours = /\u001b\[(?:0|1|2|22|3[1-6]|39)m/g;
      const text = env.FORCE_COLOR ? `${out}${err}`.replace(ours, '') : `${out}${err}`;
      expect(controls(text)).toEqual([]);
      expect(out.length).toBeGreaterThan(20);
      if (options.includes('--json') || options.includes('sarif')) JSON.parse(out);
      if (options.includes('junit')) execFileSync('xmllint', ['--noout', '-'], { input: out });
      // A name with a line break makes no line of its own.
      expect(out).not.toMatch(/^\s*■ blocker"?$/m);
    }
  });

  it('is read in full, the name that is no UTF-8 included', async () => {
    const { facts } = JSON.parse((await syndexa(['survey', tree, '--json'], home)).out);
    const places = facts.map(({ value, place }: any) => [value, place?.path]);
    expect(places).toContainEqual([
      'CH-U-310772-QQQQ2222',
      'app/src/main/java/ev\\x1b[31mil\\u202e\\x07\\x0d\\u009b2J\\x0a/Spare.java',
    ]);
    const { problems } = JSON.parse((await syndexa(['survey', tree, '--json'], home)).out);
    expect(problems.map(({ path }: any) => path)).toContain('app/src/main/res/values/\\xff\\x1b.xml');
  });
});

describe('markers that came with a tree', () => {
  const outside = () => join(home, 'outside');
  it.each(['survey', 'check', 'wire', 'board'])('are reported by %s, and move nothing', async (name) => {
    put(androidFiles());
    mkdirSync(outside());
    writeFileSync(join(outside(), 'keep.txt'), 'mine');
    mkdirSync(join(tree, '.syndexa-write'));
    writeFileSync(
      join(tree, '.syndexa-write', 'journal.json'),
      JSON.stringify({
        pid: 4_000_000,
        folders: ['../made'],
        files: [
          { path: '../outside/new.txt', isNew: true, before: null, after: 'a'.repeat(64) },
          { path: '../outside/keep.txt', isNew: false, before: null, after: null },
        ],
      }),
    );
    writeFileSync(join(tree, '.syndexa-write', 'new-0'), 'evil');
    execFileSync('mkfifo', [join(tree, '.syndexa-done-1-a')]);
    const before = filesBelow(outside());
    const subject = name === 'board' ? 'kelp' : tree;
    const title = name === 'wire' ? ['--title', 'kelp'] : [];
    const { code, err } = await syndexa([name, subject, ...title], home);
    if (name !== 'board') {
      expect(err).toContain('▲ .syndexa-write (folder) marks a write that this data folder does not know.');
      expect(err).toContain('▲ .syndexa-done-1-a (something else)');
    }
    expect(code).toBeLessThan(2);
    expect(filesBelow(outside())).toEqual(before);
    const written = await syndexa(['wire', tree, '--title', 'kelp', '--write'], home);
    expect(written.code).toBe(0);
    expect((await syndexa(['undo', tree], home)).code).toBe(0);
    expect(filesBelow(outside())).toEqual(before);
  });
});

describe('names that every object has', () => {
  it.each(['constructor', '__proto__'])('%s breaks nothing', async (name) => {
    put(androidFiles());
    const commands = [
      ['title', 'show', name],
      ['title', 'add', name],
      ['title', 'remove', name],
      ['title', 'history', name],
      ['board', name],
      ['steps', name],
      ['placement', 'add', 'kelp', name, '--format', 'banner'],
      ['placement', 'add', 'kelp', 'spot', '--format', 'banner', '--network', name],
      ['placement', 'remove', 'kelp', name],
      ['network', 'show', name],
      ['id', 'set', 'kelp', 'x', '--network', name, '--platform', 'android', '--stage', 'test'],
      ['id', 'collect', 'kelp', '--network', name],
      ['provision', 'kelp', '--network', name, '--dry-run'],
      ['publisher', 'set', '--account', `${name}=1`],
      ['secret', 'set', name],
      ['secret', 'allow', name, '--host', name],
      ['token', 'add', name, '--role', 'viewer'],
      ['token', 'revoke', name],
      ['unwire', name, tree, '--title', 'kelp'],
      ['wire', tree, '--title', name],
      ['wire', tree, '--title', 'kelp', '--network', name],
      ['wire', tree, '--title', 'kelp', '--part', name],
      ['check', tree, '--title', name],
      ['survey', tree, '--explain', name],
      ['accept', name, '--title', 'kelp', '--reason', 'a good reason', '--until', '2030-01-01'],
    ];
    for (const args of commands) {
      const { code, out, err } = await syndexa(args, home, { input: 'x\n' });
      const told = `${args.join(' ')}: ${out}${err}`;
      expect([
        code <= 4 && code !== 3,
        told.includes('error of its own'),
        told.includes('[native code]'),
        told.includes('of the service'),
      ]).toEqual([true, false, false, false]);
    }
    const { code, out } = await syndexa(['roster', 'export'], home);
    expect([code, out.includes('function')]).toEqual([0, false]);
  });
});

describe('our own colours', () => {
  it('come through, in tables too', async () => {
    put(androidFiles());
    await syndexa(['token', 'add', 'gone', '--role', 'viewer'], home);
    await syndexa(['token', 'revoke', 'gone'], home);
    for (const args of [
      ['board', 'kelp'],
      ['steps', 'kelp'],
      ['title', 'list'],
      ['id', 'list', 'kelp'],
      ['token', 'list'],
      ['check', tree, '--title', 'kelp'],
    ]) {
      const { out, err } = await syndexa(args, home, { env: { FORCE_COLOR: '1', NO_COLOR: '' } });
      expect([args, `${out}${err}`.includes('\\x1b')]).toEqual([args, false]);
    }
  });
});
