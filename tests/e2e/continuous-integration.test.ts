import { execFileSync, spawnSync } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { syndexa } from '../support/cli.js';
import { androidFiles, iosFiles, root } from '../support/trees.js';

const folder = mkdtempSync(join(tmpdir(), 'syndexa-ci-'));
const [home, work, clone] = ['home', 'work', 'clone'].map((name) => join(folder, name)) as [
  string,
  string,
  string,
];

/** The block of the guide that a build server runs. */
const job = /```sh\n(set -eu[^]*?)```/.exec(
  readFileSync(join(root, 'docs', 'continuous-integration.md'), 'utf8'),
)?.[1];

/** An accepted finding is carried along, too. */
const again = {
  'app/src/main/java/Screen.kt':
    'class Screen : Activity() {\n  fun again() { CobaltHeron.start(this) }\n}\n',
};

const roster = `syndexa: 1
titles:
  kelp:
    name: Kelp
    stages: { test: [debug], production: [release] }
    editions:
      android: { identifier: example.brine.kelp }
      ios: { identifier: example.brine.kelp }
    networks:
      cobalt-heron:
        android: { production: { app: CH-A-310772-QK4T8W2N } }
        ios: { production: { app: CH-I-310772-M6R9V3XC } }
`;

async function run(...args: string[]) {
  const result = await syndexa(args, home, { cwd: work });
  return {
    ...result,
    json: () =>
      JSON.parse(result.out) as { findings: { fingerprint: string; accepted?: object }[]; summary: object },
  };
}

/** Runs the job of the guide in the clone, with a data folder of its own that is empty. */
function runJob() {
  const bin = join(folder, 'bin');
  mkdirSync(bin, { recursive: true });
  writeFileSync(
    join(bin, 'syndexa'),
    `#!/bin/sh\nexec "${process.execPath}" "${join(root, 'bin', 'syndexa')}" "$@"\n`,
  );
  chmodSync(join(bin, 'syndexa'), 0o755);
  const { SYNDEXA_HOME: _, SYNDEXA_URL: __, ...inherited } = process.env;
  const env = { ...inherited, PATH: `${bin}:${process.env.PATH ?? ''}`, TITLE: 'kelp' };
  return spawnSync('sh', ['-c', job ?? 'exit 99'], { cwd: clone, env, encoding: 'utf8' });
}

beforeAll(async () => {
  mkdirSync(home);
  for (const [path, text] of Object.entries({
    ...androidFiles(),
    ...iosFiles(),
    ...again,
    'start.yaml': roster,
  })) {
    mkdirSync(dirname(join(work, path)), { recursive: true });
    writeFileSync(join(work, path), text);
  }
  const shipped = readFileSync(join(root, 'profiles', 'tallowfield.yaml'), 'utf8');
  writeFileSync(
    join(work, 'ashgrove.yaml'),
    shipped.replaceAll('tallowfield', 'ashgrove').replaceAll('Tallowfield', 'Ashgrove'),
  );
  expect(await run('network', 'add', 'ashgrove.yaml')).toMatchObject({ code: 0 });
  rmSync(join(work, 'ashgrove.yaml'));
  expect(await run('roster', 'import', 'start.yaml', '--yes')).toMatchObject({ code: 0 });
  const { findings } = (await run('check', '.', '--title', 'kelp', '--json', '--fail-on', 'never')).json();
  for (const { fingerprint } of findings)
    expect(
      await run('accept', fingerprint, '--title', 'kelp', '--reason', 'known: =1+1', '--until', '2099-12-31'),
    ).toMatchObject({ code: 0 });
  expect(await run('roster', 'export', 'ads.yaml')).toMatchObject({ code: 0 });
  rmSync(join(work, 'start.yaml'));
  const git = (...args: string[]) =>
    execFileSync('git', ['-c', 'user.name=t', '-c', 'user.email=t@t.example', ...args], { cwd: work });
  git('init', '-q');
  git('add', '.');
  git('commit', '-q', '-m', 'Kelp');
  execFileSync('git', ['clone', '-q', work, clone]);
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('a job on a machine that has nothing', () => {
  it('finds what the developer’s machine finds, and passes', async () => {
    const { status, stderr, stdout } = runJob();
    expect([status, stderr, stdout].join('\n')).toMatch(/^0\n/);
    expect(readFileSync(join(clone, 'ads-junit.xml'), 'utf8')).toMatch(/failures="0"/);
    const sarif = JSON.parse(readFileSync(join(clone, 'ads.sarif'), 'utf8')) as {
      runs: { results: { partialFingerprints: Record<string, string>; suppressions?: object[] }[] }[];
    };
    const results = sarif.runs[0]?.results ?? [];
    const { findings } = (await run('check', '.', '--title', 'kelp', '--json', '--fail-on', 'never')).json();
    expect(findings.length).toBeGreaterThan(0);
    expect(results.map(({ partialFingerprints }) => Object.values(partialFingerprints)[0]).sort()).toEqual(
      findings.map(({ fingerprint }) => fingerprint).sort(),
    );
    expect(results.every(({ suppressions }) => suppressions?.length === 1)).toBe(true);
  });

  it('says the same when it is written again', async () => {
    const other = join(folder, 'other');
    mkdirSync(other);
    expect(await syndexa(['roster', 'import', 'ads.yaml', '--yes'], other, { cwd: clone })).toMatchObject({
      code: 0,
    });
    const { out } = await syndexa(['roster', 'export'], other, { cwd: clone });
    const plain = (text: string) => text.replace(/^revision: .*\n/m, '');
    expect(plain(out)).toBe(plain(readFileSync(join(clone, 'ads.yaml'), 'utf8')));
    const again = await syndexa(['roster', 'import', 'ads.yaml', '--dry-run'], other, { cwd: clone });
    expect(again.out).toContain('nothing to import');
  });

  it('carries the profiles that do not ship', () => {
    expect(readFileSync(join(clone, 'ads-networks', 'ashgrove.yaml'), 'utf8')).toContain('ashgrove');
  });

  it('fails after a mistake, and says which one', () => {
    const path = join(clone, 'app/src/release/res/values/ids.xml');
    const before = readFileSync(path, 'utf8');
    writeFileSync(path, before.replace('CH-A-310772-QK4T8W2N', 'CH-A-310772-ZZZZ9999'));
    const { status, stdout } = runJob();
    expect(status).toBe(1);
    expect(stdout).toContain('CH-A-310772-ZZZZ9999');
    expect(readFileSync(join(clone, 'ads-junit.xml'), 'utf8')).toMatch(/failures="[1-9]/);
    writeFileSync(path, before);
    expect(runJob().status).toBe(0);
  });

  it('does not pass when the title fits no app', () => {
    const path = join(clone, 'app/build.gradle.kts');
    const project = join(clone, 'Kelp.xcodeproj/project.pbxproj');
    const before = [path, project].map((one) => readFileSync(one, 'utf8'));
    for (const one of [path, project])
      writeFileSync(one, readFileSync(one, 'utf8').replaceAll('example.brine.kelp', 'example.other.app'));
    const { status, stderr, stdout } = runJob();
    expect(status).not.toBe(0);
    expect(`${stderr}${stdout}`).toContain('example.brine.kelp');
    [path, project].forEach((one, at) => writeFileSync(one, before[at] ?? ''));
  });
});
