import { existsSync, mkdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { schemaDocuments } from '../../src/api/schemas.js';
import { readProfile } from '../../src/core/network/read.js';
import { syndexa, type CliResult } from '../support/cli.js';
import { testPartner, type TestPartner } from '../support/partner.js';
import { temporaryFolder } from '../support/service.js';
import {
  androidFiles,
  gradle,
  iosFiles,
  manifest,
  pbxproj,
  plist,
  profiles,
  root,
  filesBelow,
} from '../support/trees.js';

/** A sixth network, as a user would write it: data, and no code. */
const lanternYaml = `
profile: 1
id: lantern
name: Lantern
about: A sixth network, known by this file alone.
terms: The terms are accepted for each app on its pages.
ids:
  app:
    label: lamp
    scope: edition
    pattern: 'lan\\.(?<platform>[gb])\\.[0-9]{6}'
    platforms: { g: android, b: ios }
    needles: [lan.g., lan.b.]
    samples: { android: lan.g.000001, ios: lan.b.000001 }
  unit:
    label: wick
    scope: placement
    pattern: 'wick-(?<account>[0-9]{3})-[a-z]{6}'
    needles: [wick-]
    samples: { android: { banner: wick-000-sampla }, ios: { banner: wick-000-sampli } }
credentials:
  lamp: { label: lamp key, scope: account, why: The list of wicks is opened with it. }
formats:
  banner: { refresh: { min: 30s, max: 90s }, content: [image] }
serving-delay: 20m
app-ads:
  - { domain: lantern.example, relationship: DIRECT, why: Nothing is paid without it. }
inventory:
  words: { format: { banner: [strip] } }
  http:
    address: https://list.lantern.example
    key: lamp
    header: Lantern-Key
    page: { cursor: from, size: size, next: then, limit: 10 }
    apps: { path: /lamps, items: lamps, fields: { id: lamp, platform: os, identifier: bundle, name: title, terms: agreed } }
    units: { path: /wicks, items: wicks, fields: { id: wick, name: title, format: shape, platform: os, app: lamp, content: shows, refresh: again, serves-from: lit } }
    create: true
    why: Wicks are made by machine.
  csv:
    columns: { id: Wick, name: Title, format: Shape, platform: OS }
android:
  app-id: { place: manifest, key: example.lantern.LAMP, resource: lantern_lamp, why: It is read at launch. }
  permissions: [{ name: android.permission.INTERNET, why: Ads are fetched over the network. }]
  repositories: [{ url: 'https://maven.lantern.example/r', why: It is published there. }]
  dependencies: [{ coordinate: 'example.lantern:light', version: 1.2.3, why: The SDK itself. }]
ios:
  app-id: { place: plist, key: LanternLamp, setting: LANTERN_LAMP, why: It is read at launch. }
  pods: [{ name: LanternLight, version: '1.2', why: The SDK itself. }]
  attribution: { ids: [lanternlan.skadnetwork], why: Installs are attributed through it. }
code:
  kotlin:
    start: { call: Lantern.light, in: application, example: Lantern.light(this), why: Nothing is lit before it. }
    formats: { banner: { load: { call: Lantern.strip, id: 0 }, example: Lantern.strip(UNIT_ID) } }
`;

const ajv = new Ajv2020({ strict: false, validateFormats: false });
const shapes = schemaDocuments();
function shaped(name: string, { out }: CliResult): any {
  const value: unknown = JSON.parse(out);
  const validate = ajv.compile(shapes[name]!);
  expect(validate(value) ? [] : validate.errors).toEqual([]);
  return value;
}

let home: string;
let partner: TestPartner;
let env: Record<string, string>;
beforeEach(async () => {
  home = temporaryFolder();
  const { profile, problems } = readProfile(lanternYaml);
  expect(problems).toEqual([]);
  partner = await testPartner({ profiles: [...profiles, profile!] });
  await partner.account('lantern', 'lantern-key-of-the-test', '777');
  env = { SYNDEXA_PARTNERS: partner.url };
});
afterEach(async () => {
  await partner.close();
  rmSync(home, { recursive: true, force: true });
});

const run = (line: string, options: { input?: string } = {}) =>
  syndexa(
    [...line.matchAll(/"([^"]*)"|(\S+)/g)].map((match) => match[1] ?? match[2] ?? ''),
    home,
    { env, ...options },
  );
const good = async (line: string, options: { input?: string } = {}) => {
  const result = await run(line, options);
  expect([line, result.code, result.err]).toEqual([line, 0, '']);
  return result;
};
function write(files: Record<string, string>): void {
  for (const [path, text] of Object.entries(files)) {
    mkdirSync(join(home, path, '..'), { recursive: true });
    writeFileSync(join(home, path), text);
  }
}
const below = (folder: string, files: Record<string, string>) =>
  Object.fromEntries(Object.entries(files).map(([path, text]) => [`${folder}/${path}`, text]));
const plainTree = {
  ...androidFiles({
    'settings.gradle.kts':
      'dependencyResolutionManagement {\n    repositories {\n        google()\n    }\n}\ninclude(":app")\n',
    'app/build.gradle.kts': gradle('', 'implementation("androidx.core:core-ktx:1.16.0")'),
    'app/src/main/AndroidManifest.xml': manifest(''),
    'app/src/main/kotlin/example/brine/kelp/Main.kt': 'package example.brine.kelp\n\nclass Main\n',
    'app/src/debug/res/values/ids.xml': null,
    'app/src/release/res/values/ids.xml': null,
  }),
  ...iosFiles({
    'Kelp.xcodeproj/project.pbxproj': pbxproj(),
    'Kelp/Info.plist': plist(''),
    Podfile: "target 'Kelp' do\nend\n",
  }),
};

describe('a sixth network, known by a YAML file alone', () => {
  it('goes the whole way with every command', async () => {
    write({ 'lantern.yaml': lanternYaml, ...below('tree', plainTree) });
    expect((await good('network lint lantern.yaml')).out).toContain('the profile of lantern is right');
    expect((await good('network test lantern.yaml --tree tree')).out).toContain(
      'example.lantern:light:1.2.3',
    );
    shaped('network-added', await good('network add lantern.yaml --json'));
    expect((await good('network list')).out).toContain('lantern  Lantern');
    expect((await good('network show lantern')).out).toBe(lanternYaml);
    await good('publisher set --name Brine --domain brine.example --credential lantern.lamp=secret:LANTERN');
    expect((await run('secret list')).out).toContain('held nowhere');
    await good('secret set LANTERN', { input: 'lantern-key-of-the-test\n' });
    expect(statSync(join(home, 'secrets')).mode & 0o777).toBe(0o600);
    expect((await run('secret list')).out).toContain('may not be sent anywhere yet:');
    await good(`secret allow LANTERN --host ${new URL(partner.url).host}`);
    expect(shaped('secrets', await good('secret list --json'))).toMatchObject([
      { name: 'LANTERN', from: 'file', hosts: [new URL(partner.url).host] },
    ]);
    await good(
      'title add kelp --name Kelp --android example.brine.kelp --ios example.brine.kelp --test debug --production release',
    );
    await good('placement add kelp tide-footer --format banner --refresh 60s --network lantern');
    const refused = await run('provision kelp');
    expect([refused.code, refused.err]).toEqual([4, 'Nothing was created. To skip this question: --yes\n']);
    const provisioned = await run('provision kelp --yes --json');
    expect(shaped('provision', provisioned).done).toHaveLength(4);
    expect(provisioned.code).toBe(1);
    for (const { id } of (await partner.ask('lantern', 'lantern-key-of-the-test', '/lamps')).body.lamps.map(
      (one: any) => ({ id: one.lamp }),
    ))
      await partner.control('terms', { network: 'lantern', app: id });
    expect(shaped('collect', await good('id collect kelp --network lantern --json'))).toMatchObject({
      units: 2,
      unmatchedCount: 0,
    });
    expect((await run('check tree --title kelp')).code).toBe(1);
    await good('wire tree --title kelp --write');
    expect(readFileSync(join(home, 'tree/settings.gradle.kts'), 'utf8')).toContain(
      '        maven { url = uri("https://maven.lantern.example/r") }\n',
    );
    expect(readFileSync(join(home, 'tree/Podfile'), 'utf8')).toBe(
      "target 'Kelp' do\n  pod 'LanternLight', '~> 1.2'\nend\n",
    );
    const check = await run('check tree --title kelp --fail-on warning --verbose');
    expect([check.code, check.out.match(/partner\/unit-too-new/g)?.length]).toEqual([1, 2]);
    // Wiring writes no code of the title: the calls and the install of pods are left to a person.
    const left = [...check.out.matchAll(/^(?:■ blocker|▲ warning) {2}(\S+)/gm)].map(([, rule]) => rule);
    expect(new Set(left)).toEqual(
      new Set(['code/never-started', 'build/install-not-run', 'unit-id/not-in-build']),
    );
    expect((await good('survey tree --title kelp')).out).toContain('lantern');
    const board = shaped('board', await good('board kelp --json'));
    expect(board.rows.map(({ label, network }: any) => [label, network])).toEqual([
      ['lamp', 'lantern'],
      ['wick', 'lantern'],
    ]);
    expect((await good('board kelp')).out).toContain('not in build');
    // Once code names the placement, the board says what its unit still waits for.
    mkdirSync(join(home, 'tree/app/src/main/kotlin'), { recursive: true });
    writeFileSync(
      join(home, 'tree/app/src/main/kotlin/Shore.kt'),
      'package example.brine.kelp\n\nval shore = Placebook.tideFooter\n',
    );
    expect((await run('check tree --title kelp')).code).toBe(1);
    expect((await good('board kelp')).out).toContain('too new');
    const steps = shaped('steps', await good('steps kelp --json')).steps;
    expect(
      Object.fromEntries(
        steps
          .filter(({ platform }: any) => platform === 'android')
          .map(({ step, state }: any) => [step, state]),
      ),
    ).toMatchObject({
      register: 'done',
      app: 'done',
      terms: 'done',
      units: 'done',
      dependency: 'done',
      declarations: 'done',
      'start-up': 'to-do',
    });
    expect((await good('appads show')).out).toContain('lantern.example, 777, DIRECT');
    expect(shaped('attribution', await good('attribution show --json')).ids).toEqual([
      'lanternlan.skadnetwork',
    ]);
    expect(
      shaped('attribution-compare', await good('attribution compare tree --title kelp --json')).missing,
    ).toEqual([]);
    await good('id unset kelp --network lantern --platform android --placement tide-footer');
    write({
      'wicks.csv': `Wick;Title;Shape;OS\n${board.rows[1].cells[1].id};Kelp tide footer;strip;android\n`,
    });
    expect((await good('id collect kelp --network lantern --csv wicks.csv --yes')).out).toContain(
      '1 ID added to the roster',
    );
    expect(
      (await run('id set kelp wick-777 --network lantern --platform android --placement tide-footer')).err,
    ).toContain('does not look like a unit ID of Lantern');
    expect((await good('roster export')).out).toContain('lantern:');
  }, 120_000);
});

describe('the demo, walked from end to end', () => {
  it('makes a title right, and another from an empty record over a network that fails', async () => {
    const before = filesBelow(join(root, 'demo'));
    const { code, out, err } = await syndexa(['demo', '--walk'], home);
    expect([code, err]).toEqual([0, '']);
    for (const step of [
      '▶ syndexa survey',
      '▶ syndexa wire',
      'there is nothing to wire',
      '● The board is good',
    ])
      expect(out).toContain(step);
    // Not a byte of the checkout is changed.
    expect(filesBelow(join(root, 'demo'))).toEqual(before);
    const parts = out.split(/^▶ syndexa /m);
    const part = (start: string) => parts.filter((text) => text.startsWith(start));
    expect(part('check tidewick --title tidewick --fail-on note')[0]).toContain('nothing found');
    expect(part('partner faults')).toHaveLength(4);
    const [, provisioned] = part('provision lite');
    const ids = [...provisioned!.matchAll(/✔ (?:app|unit) created {2}(\S+)/g)].map(([, id]) => id!);
    expect([ids.length, new Set(ids).size]).toEqual([10, 10]);
    const again = part('provision lite')[2]!;
    expect(again).not.toMatch(/^ {2}[+←]|✔/m);
    for (const id of ids) expect(again).toContain(id);
    expect(part('id collect lite').map((text) => /(\d+) units of/.exec(text)?.[1])).toEqual(['4', '2']);
    expect(part('check tidewick-lite')[1]).toMatch(/^8 notes; none of them is fixed by wiring\.$/m);
    const board = part('board lite')[0]!;
    expect(board).toContain('The board is good');
    for (const id of ids) expect(board).toContain(id);
  }, 120_000);
});

describe('the simulated partner by command', () => {
  it('is a process of its own, with its accounts, its clock, its store and its crawler', async () => {
    const site = createServer((_request, response) => response.end('cobaltheron.example, 1, DIRECT\n'));
    await new Promise<void>((resolve) => site.listen(0, '127.0.0.1', resolve));
    const at = `http://127.0.0.1:${(site.address() as AddressInfo).port}`;
    const { spawn } = await import('node:child_process');
    const child = spawn(
      process.execPath,
      [join(root, 'bin/syndexa'), 'partner', 'start', '--port', '0', '--fresh'],
      { env: { ...process.env, SYNDEXA_HOME: home }, stdio: ['ignore', 'pipe', 'inherit'] },
    );
    await new Promise((resolve) => child.stdout.once('data', resolve));
    const card = JSON.parse(readFileSync(join(home, 'partner.json'), 'utf8')) as { url: string };
    env = { SYNDEXA_PARTNERS: card.url };
    const opened = shaped(
      'partner-accounts',
      await good('partner open-accounts Brine --network cobalt-heron --json'),
    );
    expect(opened).toMatchObject([{ network: 'cobalt-heron', secret: 'secret:COBALT_HERON_INVENTORY' }]);
    await good(
      'publisher set --name Brine --domain brine.example --credential cobalt-heron.inventory=secret:COBALT_HERON_INVENTORY',
    );
    expect(shaped('publisher', await good('publisher show --json')).credentials).toEqual({
      'cobalt-heron': { inventory: 'secret:COBALT_HERON_INVENTORY' },
    });
    await good('title add kelp --name Kelp --android example.brine.kelp');
    await good('placement add kelp footer --format banner --network cobalt-heron');
    await good('partner faults cobalt-heron --kinds error cut --every 2');
    await run('provision kelp --yes');
    await good('partner faults cobalt-heron');
    const { rows } = shaped('board', await good('board kelp --json'));
    await good(`partner accept cobalt-heron ${rows[0].cells[1].id}`);
    expect((await run('title look-up kelp')).code).toBe(1);
    await good(`partner list-app android example.brine.kelp --name Kelp --site brine.example --at ${at}`);
    expect(shaped('listings', await good('title look-up kelp --json'))).toMatchObject([
      { listed: true, site: 'brine.example' },
    ]);
    expect(shaped('partner-crawl', await run('partner crawl cobalt-heron --json')).apps).toMatchObject([
      { state: 'not-named' },
    ]);
    expect((await run(`appads verify --url ${at}/app-ads.txt`)).code).toBe(1);
    expect((await good('partner clock --advance 2h')).out).toMatch(/^The partner’s clock is at 20/);
    const steps = async (line: string) =>
      shaped('steps', await good(`steps kelp --json ${line}`)).steps as { step: string; state: string }[];
    expect((await steps('')).find(({ step }) => step === 'app-ads')?.state).toBe('to-do');
    expect((await steps('--next')).every(({ state }) => state === 'to-do' || state === 'cannot-tell')).toBe(
      true,
    );
    const seen = await run('steps kelp --tick register --platform android --network cobalt-heron');
    expect([seen.code, seen.err]).toEqual([
      2,
      expect.stringContaining('register is read from the tree or the roster, so it cannot be set by hand'),
    ]);
    expect((await run('steps kelp --tick dance --platform android')).err).toContain('There is no step dance');
    const ticked = await steps(
      '--tick test-run --platform android --network cobalt-heron --note "two devices"',
    );
    expect(ticked.find(({ step }) => step === 'test-run')).toMatchObject({
      state: 'done',
      tick: { note: 'two devices' },
    });
    const taken = await steps('--untick test-run --platform android --network cobalt-heron');
    expect(taken.find(({ step }) => step === 'test-run')).toMatchObject({ tick: null });
    expect(
      readFileSync(join(home, 'syndexa.sqlite')).includes(
        readFileSync(join(home, 'secrets'), 'utf8').split('=')[1]!.trim(),
      ),
    ).toBe(false);
    child.kill('SIGTERM');
    await new Promise((resolve) => child.once('exit', resolve));
    expect(existsSync(join(home, 'partner.json'))).toBe(false);
    expect((await run('partner clock')).err).toContain('Start it: syndexa partner start.');
    site.close();
  }, 120_000);
});
