import { spawn } from 'node:child_process';
import { chmodSync, cpSync, mkdirSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { stringify } from 'yaml';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Title } from '../../src/core/roster/model.js';
import { syndexa } from '../support/cli.js';
import { temporaryFolder } from '../support/service.js';
import {
  androidFiles,
  filesBelow,
  gradle,
  iosFiles,
  kelp,
  manifest,
  pbxproj,
  placement,
  plist,
  root,
} from '../support/trees.js';
import { texts, titleOn } from '../support/wiring.js';

let home: string;
let tree: string;
beforeEach(() => {
  home = temporaryFolder();
  tree = join(home, 'tree');
});
afterEach(() => rmSync(home, { recursive: true, force: true }));

function put(files: Record<string, string>): void {
  for (const [path, content] of Object.entries(files)) {
    mkdirSync(join(tree, path, '..'), { recursive: true });
    writeFileSync(join(tree, path), content);
  }
}
async function record(title: Title): Promise<void> {
  writeFileSync(join(home, 'roster.yaml'), stringify({ syndexa: 1, titles: { kelp: title } }));
  expect((await syndexa(['roster', 'import', 'roster.yaml', '--yes'], home)).code).toBe(0);
}
const state = () => texts(filesBelow(tree));

const bare = {
  ...androidFiles({
    'app/build.gradle.kts': gradle('', 'implementation("androidx.core:core-ktx:1.13.1")'),
    'app/src/main/AndroidManifest.xml': manifest(''),
    'app/src/main/java/example/brine/kelp/KelpApp.java': null,
    'app/src/debug/res/values/ids.xml': null,
    'app/src/release/res/values/ids.xml': null,
    'settings.gradle.kts':
      'dependencyResolutionManagement {\n    repositories {\n        google()\n    }\n}\ninclude(":app")\n',
  }),
  ...iosFiles({
    'Kelp.xcodeproj/project.pbxproj': pbxproj(),
    'Kelp/Info.plist': plist('').replace('\n\n', '\n'),
    'Kelp/App.swift': 'func launch() {}\n',
    Podfile: "target 'Kelp' do\n  pod 'Seaweed'\nend\n",
    'Podfile.lock': null,
  }),
};
const both = { android: 'example.brine.kelp', ios: 'example.brine.kelp' };

describe('a write of 100 files that is killed', () => {
  const count = 100;
  const source = (index: number) =>
    `package example.brine.kelp\n\n// ${'-'.repeat(1_500)}\nval unit${index} = "CH-U-310772-BBBB1111"\n`;
  const title = kelp({
    editions: { android: { identifier: both.android } },
    placements: { footer: placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222') },
  });
  const command = ['wire', 'tree', '--title', 'kelp', '--call-sites', '--write'];

  /** Runs the write, killed after so many milliseconds; returns how long it went on. */
  const killed = (after: number): Promise<number> =>
    new Promise((resolve) => {
      const from = performance.now();
      const child = spawn(process.execPath, [join(root, 'bin/syndexa'), ...command], {
        cwd: home,
        env: { ...process.env, SYNDEXA_HOME: home, SYNDEXA_URL: '' },
        stdio: 'ignore',
      });
      const timer = setTimeout(() => child.kill('SIGKILL'), after);
      child.on('close', () => {
        clearTimeout(timer);
        resolve(performance.now() - from);
      });
    });

  it('leaves the tree old or new at twelve random moments, and undo makes it old again', async () => {
    const files = Object.fromEntries(
      Array.from({ length: count }, (_, index) => [
        `app/src/main/java/example/brine/kelp/Screen${index}.kt`,
        source(index),
      ]),
    );
    put({ ...androidFiles(), ...files });
    await record(title);
    const old = state();
    const whole = await killed(120_000);
    const fresh = state();
    expect(Object.keys(fresh).filter((path) => fresh[path] !== old[path]).length).toBeGreaterThanOrEqual(
      count,
    );
    expect((await syndexa(['undo', 'tree'], home)).code).toBe(0);
    expect(state()).toEqual(old);
    const seen = new Set<string>();
    for (let moment = 0; moment < 12; moment++) {
      // From the first third on: before it nothing is written yet. The fraction within each step is random.
      await killed(whole * (0.3 + (0.75 * (moment + Math.random())) / 12));
      const cut = readdirSync(tree).some((name) => name.startsWith('.syndexa-write'));
      const { code, err, out } = await syndexa(['undo', 'tree', '--list', '--json'], home);
      expect(code).toBe(0);
      if (cut) {
        // A command that only lists changes nothing, and says how to go on.
        expect(err).toMatch(/was interrupted \(wire, kelp, /);
        expect((await syndexa(['undo', 'tree'], home)).code).toBe(0);
        expect(readdirSync(tree).filter((name) => name.startsWith('.syndexa'))).toEqual([]);
        seen.add('cut');
      } else {
        const now = state();
        const isNew = Object.keys(now).length === Object.keys(fresh).length;
        expect(now).toEqual(isNew ? fresh : old);
        // What came about can be taken back; what never did is not on the list.
        expect(JSON.parse(out)).toHaveLength(isNew ? 1 : 0);
        if (isNew) expect((await syndexa(['undo', 'tree'], home)).code).toBe(0);
        seen.add(isNew ? 'new' : 'old');
      }
      expect(state()).toEqual(old);
    }
    expect(seen.size).toBeGreaterThan(0);
  }, 400_000);

  it('two at once: one wins, the other is refused, and the tree is whole', async () => {
    put({ ...androidFiles(), 'app/src/main/java/example/brine/kelp/Screen.kt': source(1) });
    await record(title);
    const results = await Promise.all([syndexa(command, home), syndexa(command, home)]);
    const codes = results.map(({ code }) => code).sort();
    const said = results.map(({ err }) => err).join('\n');
    // The second may also come late, and find nothing left to do.
    expect(
      [
        [0, 0],
        [0, 4],
      ],
      said,
    ).toContainEqual(codes);
    for (const { code, err } of results) if (code === 4) expect(err).toContain('Nothing was written.');
    expect((await syndexa(['wire', 'tree', '--title', 'kelp', '--call-sites'], home)).out).toContain(
      'nothing to wire',
    );
    const writes = JSON.parse((await syndexa(['undo', 'tree', '--list', '--json'], home)).out) as unknown[];
    expect(writes).toHaveLength(1);
  });
});

describe('taking a write back', () => {
  it('restores every byte, mode and folder, one write after the other', async () => {
    put(bare);
    chmodSync(join(tree, 'app/build.gradle.kts'), 0o755);
    await record(titleOn(['cobalt-heron', 'marlstone'], both));
    const old = state();
    expect(
      (await syndexa(['wire', 'tree', '--title', 'kelp', '--network', 'marlstone', '--write'], home)).code,
    ).toBe(0);
    const between = state();
    expect((await syndexa(['wire', 'tree', '--title', 'kelp', '--write'], home)).code).toBe(0);
    const list = await syndexa(['undo', 'tree', '--list'], home);
    expect(list.out.match(/^wire {2}kelp/gm)).toHaveLength(2);
    expect(list.out).toContain('new     app/src/release/res/values/syndexa.xml');
    const undone = await syndexa(['undo', 'tree'], home);
    expect(undone.out).toContain('✔ undone: wire of kelp');
    expect(state()).toEqual(between);
    expect((await syndexa(['undo', 'tree'], home)).code).toBe(0);
    expect(state()).toEqual(old);
    expect(readdirSync(join(tree, 'app/src'))).toEqual(['main']);
    expect(statSync(join(tree, 'app/build.gradle.kts')).mode & 0o777).toBe(0o755);
    const none = await syndexa(['undo', 'tree'], home);
    expect([none.code, none.err]).toEqual([2, expect.stringContaining('Nothing was written into tree')]);
  });
});

describe('taking a network out', () => {
  it('gives the tree back as it was, and leaves what others need', async () => {
    put(bare);
    await record(titleOn(['cobalt-heron', 'marlstone'], both));
    const old = state();
    await syndexa(['wire', 'tree', '--title', 'kelp', '--write'], home);
    const shown = await syndexa(['unwire', 'cobalt-heron', 'tree', '--title', 'kelp'], home);
    expect(shown.out).toContain("-  pod 'CobaltHeronAds', '~> 6.2'");
    expect(shown.out).toContain('Take Cobalt Heron out of the roster of kelp too.');
    expect(shown.out).toContain('syndexa unwire cobalt-heron tree --title kelp --write');
    const wired = state();
    expect((await syndexa(['unwire', 'cobalt-heron', 'tree', '--title', 'kelp', '--write'], home)).code).toBe(
      0,
    );
    expect(JSON.stringify(state()).match(/.{0,60}heron.{0,60}/i)).toBeNull();
    expect(state()['Podfile']).toContain('MarlstoneStage');
    expect((await syndexa(['undo', 'tree'], home)).code).toBe(0);
    expect(state()).toEqual(wired);
    for (const network of ['cobalt-heron', 'marlstone'])
      expect((await syndexa(['unwire', network, 'tree', '--title', 'kelp', '--write'], home)).code).toBe(0);
    expect(state()).toEqual(old);
  });
});

describe('the placebook alone', () => {
  it('is checked, written, and current from then on', async () => {
    put(bare);
    await record(titleOn(['cobalt-heron'], both));
    const missing = await syndexa(['placebook', 'tree', '--title', 'kelp', '--check'], home);
    expect([missing.code, missing.out]).toEqual([
      1,
      expect.stringContaining('missing     Kelp/Placebook.swift'),
    ]);
    expect((await syndexa(['placebook', 'tree', '--title', 'kelp', '--write'], home)).code).toBe(0);
    const current = await syndexa(['placebook', 'tree', '--title', 'kelp', '--check'], home);
    expect([current.code, current.out]).toEqual([0, expect.stringContaining('✔ current')]);
    // A change elsewhere in the roster makes no placebook stale; one of a placement does.
    await syndexa(['title', 'set', 'kelp', '--audience', 'mixed'], home);
    expect((await syndexa(['placebook', 'tree', '--title', 'kelp', '--check'], home)).code).toBe(0);
    await syndexa(['placement', 'set', 'kelp', 'spot-cobalt-heron', '--refresh', '90s'], home);
    const stale = await syndexa(['placebook', 'tree', '--title', 'kelp', '--check', '--json'], home);
    expect(stale.code).toBe(1);
    expect(JSON.parse(stale.out)).toMatchObject({
      current: false,
      files: [{ state: 'out of date' }, {}, {}],
    });
  });
});

describe('files that a person names', () => {
  it('are copied into the tree with their bytes', async () => {
    put(bare);
    await record(titleOn(['quincebury'], { android: both.android }));
    const bytes = Buffer.from([0, 255, 1, 254, 80, 75]);
    writeFileSync(join(home, 'quincebury-client-2.8.aar'), bytes);
    const { code, out } = await syndexa(
      ['wire', 'tree', '--title', 'kelp', '--file', 'quincebury-client-2.8.aar', '--write'],
      home,
    );
    expect(code).toBe(0);
    expect(out).toContain('quincebury-client-2.8.aar is copied to app/libs/quincebury-client-2.8.aar');
    expect(filesBelow(tree)['app/libs/quincebury-client-2.8.aar']?.equals(bytes)).toBe(true);
    expect((await syndexa(['undo', 'tree'], home)).code).toBe(0);
    expect(state()).toEqual(texts(bare));
  });
});

describe('the demo', () => {
  it('goes from wrong to wired with its call sites, and back', async () => {
    cpSync(join(root, 'demo/trees/tidewick'), tree, { recursive: true });
    expect((await syndexa(['roster', 'import', join(root, 'demo/roster.yaml'), '--yes'], home)).code).toBe(0);
    const old = state();
    const all = ['wire', 'tree', '--title', 'tidewick', '--call-sites', '--raise-sdk', '--write'];
    expect((await syndexa(all, home)).code).toBe(0);
    const { out } = await syndexa(['check', 'tree', '--title', 'tidewick', '--json'], home);
    const { findings } = JSON.parse(out) as { findings: { rule: string }[] };
    for (const rule of [
      'stage/test-id-in-production',
      'stage/production-id-in-test',
      'code/hard-coded-id',
      'build/platform-level-too-low',
    ])
      expect(findings.map((finding) => finding.rule)).not.toContain(rule);
    expect((await syndexa(['undo', 'tree'], home)).code).toBe(0);
    expect(state()).toEqual(old);
  });
});
