import { execFileSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { format } from 'prettier';
import { JsxEmit, transpileModule } from 'typescript';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { stringify } from 'yaml';
import { syndexa } from '../support/cli.js';
import { temporaryFolder } from '../support/service.js';
import { filesBelow, root, syntax } from '../support/trees.js';
import { titleOn } from '../support/wiring.js';

// Judges that nobody here wrote: the platform's own packager, two parsers, and git.

let home: string;
beforeEach(() => {
  home = temporaryFolder();
});
afterEach(() => rmSync(home, { recursive: true, force: true }));

const run = (command: string, args: string[], cwd = home) =>
  execFileSync(command, args, { cwd, encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });

/** Compiles manifest and resources of one variant as the real build would, and dumps what came out. */
function compile(
  app: string,
  namespace: string,
  sourceSets: string[],
): { manifest: string; resources: string } {
  const out = join(home, 'out.apk');
  const given = join(home, 'manifest');
  mkdirSync(given, { recursive: true });
  // The build hands the namespace in as the package, and Flutter's plugin the application class.
  const manifest = readFileSync(join(app, 'src/main/AndroidManifest.xml'), 'utf8')
    .replace('<manifest ', `<manifest package="${namespace}" `)
    .replace('${applicationName}', 'android.app.Application');
  writeFileSync(join(given, 'AndroidManifest.xml'), manifest);
  const folders = [...sourceSets]
    .reverse()
    .map((set) => join(app, 'src', set, 'res'))
    .filter((folder) => existsSync(folder));
  run('aapt', [
    'package',
    '-f',
    '--auto-add-overlay',
    '--min-sdk-version',
    '26',
    '-M',
    join(given, 'AndroidManifest.xml'),
    ...folders.flatMap((folder) => ['-S', folder]),
    '-I',
    '/usr/share/android-framework-res/framework-res.apk',
    '-F',
    out,
  ]);
  return {
    manifest: run('aapt', ['dump', 'xmltree', out, 'AndroidManifest.xml']),
    resources: run('aapt', ['dump', '--values', 'resources', out]),
  };
}

/** The app ID that a compiled package carries: the reference in the manifest, followed into the resources. */
function appIdIn({ manifest, resources }: { manifest: string; resources: string }): string {
  const lines = manifest.split('\n');
  const at = lines.findIndex((line) => line.includes('example.cobaltheron.ads.APP_ID'));
  const reference = /@(0x[0-9a-f]+)/.exec(lines[at + 1] ?? '')?.[1] ?? 'none';
  // The element must stand directly in the application element: two levels below it in the dump's indentation.
  const indent = /^ */.exec(lines[at] ?? '')?.[0].length ?? 0;
  const application = lines.find((line) => line.includes('E: application'));
  expect(indent - (/^ */.exec(application ?? '')?.[0].length ?? 0)).toBe(4);
  const values = resources.split('\n');
  const entry = values.findIndex((line) => line.includes(`resource ${reference} `) && line.includes(': t='));
  return /"([^"]*)"/.exec(values[entry + 1] ?? '')?.[1] ?? 'none';
}

/** The string keys of a property list, as plistutil reads them: to binary and back to XML. */
function keysOf(path: string): Record<string, string> {
  const binary = join(home, 'list.bin');
  run('plistutil', ['-i', path, '-f', 'bin', '-o', binary]);
  expect(readFileSync(binary).subarray(0, 8).toString()).toBe('bplist00');
  const xml = run('plistutil', ['-i', binary, '-f', 'xml']);
  return Object.fromEntries(
    [...xml.matchAll(/<key>([^<]*)<\/key>\s*<string>([^<]*)<\/string>/g)].map(([, key, value]) => [
      key ?? '',
      value ?? '',
    ]),
  );
}

async function record(document: string): Promise<void> {
  writeFileSync(join(home, 'roster.yaml'), document);
  expect((await syndexa(['roster', 'import', 'roster.yaml', '--yes'], home)).code).toBe(0);
}

describe('Tidewick', () => {
  it('compiles when it is wired, and each package carries the ID of its stage', async () => {
    await record(readFileSync(join(root, 'demo/roster.yaml'), 'utf8'));
    cpSync(join(root, 'demo/trees/tidewick'), join(home, 'tidewick'), { recursive: true });
    const { code, err } = await syndexa(['wire', 'tidewick', '--title', 'tidewick', '--write'], home);
    expect([code, err]).toEqual([0, '']);
    const app = join(home, 'tidewick/android/app');
    const namespace = 'example.saltmarsh.tidewick';
    expect(appIdIn(compile(app, namespace, ['main', 'release']))).toBe('CH-A-204418-7KQ2M9TD');
    expect(appIdIn(compile(app, namespace, ['main', 'debug']))).toBe('CH-A-100001-SAMPLE0A');
    expect(appIdIn(compile(app, namespace, ['main', 'staging']))).toBe('CH-A-100001-SAMPLE0A');
    const { manifest } = compile(app, namespace, ['main', 'release']);
    expect(manifest.match(/example\.cobaltheron\.ads\.APP_ID/g)).toHaveLength(2); // value and raw text of one attribute
    expect(manifest).toContain('android.permission.ACCESS_NETWORK_STATE');
    expect(keysOf('tidewick/ios/Tidewick/Info.plist').CobaltHeronAppID).toBe('$(COBALT_HERON_APP_ID)');
    for (const path of [
      'src/main/AndroidManifest.xml',
      'src/debug/AndroidManifest.xml',
      'src/debug/res/values/syndexa.xml',
      'src/release/res/values/syndexa.xml',
    ])
      run('xmllint', ['--noout', join(app, path)]);
  });

  it('the patch is one that git takes, and does the same as --write', async () => {
    await record(readFileSync(join(root, 'demo/roster.yaml'), 'utf8'));
    for (const name of ['patched', 'written'])
      cpSync(join(root, 'demo/trees/tidewick'), join(home, name), { recursive: true });
    const preview = await syndexa(['wire', 'patched', '--title', 'tidewick', '--json'], home);
    const { patch } = JSON.parse(preview.out) as { patch: string };
    writeFileSync(join(home, 'wiring.patch'), patch);
    run('git', ['init', '-q', '.'], join(home, 'patched'));
    run('git', ['apply', '--check', '../wiring.patch'], join(home, 'patched'));
    run('git', ['apply', '../wiring.patch'], join(home, 'patched'));
    // What a pipe gets is whole: the words below the diff do not disturb git.
    const piped = await syndexa(['wire', 'written', '--title', 'tidewick'], home);
    writeFileSync(join(home, 'piped.patch'), piped.out);
    run('git', ['init', '-q', '.'], join(home, 'written'));
    run('git', ['apply', '--check', '../piped.patch'], join(home, 'written'));
    rmSync(join(home, 'written/.git'), { recursive: true });
    rmSync(join(home, 'patched/.git'), { recursive: true });
    await syndexa(['wire', 'written', '--title', 'tidewick', '--write'], home);
    expect(filesBelow(join(home, 'patched'))).toEqual(filesBelow(join(home, 'written')));
  });
});

describe('Plumebook', () => {
  it('compiles in every mode when it is wired, and its Dart has no fault', async () => {
    await record(readFileSync(join(root, 'demo/roster.yaml'), 'utf8'));
    cpSync(join(root, 'demo/trees/plumebook'), join(home, 'plumebook'), { recursive: true });
    const command = ['wire', 'plumebook', '--title', 'plumebook', '--call-sites', '--write'];
    const { code, err } = await syndexa(command, home);
    expect([code, err]).toEqual([0, '']);
    const app = join(home, 'plumebook/android/app');
    const namespace = 'example.saltmarsh.plumebook';
    expect(appIdIn(compile(app, namespace, ['main', 'release']))).toBe('CH-A-204418-PLM2B7QX');
    expect(appIdIn(compile(app, namespace, ['main', 'debug']))).toBe('CH-A-100001-SAMPLE0A');
    expect(appIdIn(compile(app, namespace, ['main', 'profile']))).toBe('CH-A-100001-SAMPLE0A');
    expect(keysOf('plumebook/ios/Runner/Info.plist').CobaltHeronAppID).toBe('$(COBALT_HERON_APP_ID)');
    const dart = Object.entries(filesBelow(join(home, 'plumebook/lib')));
    expect(dart.map(([path]) => path)).toContain('ads/placebook.dart');
    // There is no compiler of Dart here: its grammar finds no fault.
    for (const [path, content] of dart)
      expect([path, syntax.visit('dart', content.toString(), (tree) => tree.hasError)]).toEqual([
        path,
        false,
      ]);
    expect((await syndexa(['placebook', 'plumebook', '--title', 'plumebook', '--check'], home)).code).toBe(0);
    expect((await syndexa(['undo', 'plumebook'], home)).code).toBe(0);
    expect(filesBelow(join(home, 'plumebook'))).toEqual(filesBelow(join(root, 'demo/trees/plumebook')));
  });
});

describe('Kilnlog', () => {
  it('compiles in every build type when it is wired, and its TypeScript with it', async () => {
    await record(readFileSync(join(root, 'demo/roster.yaml'), 'utf8'));
    cpSync(join(root, 'demo/trees/kilnlog'), join(home, 'kilnlog'), { recursive: true });
    const command = ['wire', 'kilnlog', '--title', 'kilnlog', '--call-sites', '--write'];
    const { code, err } = await syndexa(command, home);
    expect([code, err]).toEqual([0, '']);
    const app = join(home, 'kilnlog/android/app');
    const namespace = 'example.saltmarsh.kilnlog';
    expect(appIdIn(compile(app, namespace, ['main', 'release']))).toBe('CH-A-204418-KLN2R8ZB');
    expect(appIdIn(compile(app, namespace, ['main', 'debug']))).toBe('CH-A-100001-SAMPLE0A');
    expect(keysOf('kilnlog/ios/Kilnlog/Info.plist').CobaltHeronAppID).toBe('$(COBALT_HERON_APP_ID)');
    const scripts = Object.entries(filesBelow(join(home, 'kilnlog/src')));
    expect(scripts.map(([path]) => path)).toContain('ads/placebook.ts');
    for (const [path, content] of scripts) {
      expect([path, syntax.visit('tsx', content.toString(), (tree) => tree.hasError)]).toEqual([path, false]);
      const { diagnostics } = transpileModule(content.toString(), {
        fileName: path,
        reportDiagnostics: true,
        compilerOptions: { jsx: JsxEmit.Preserve },
      });
      expect([path, diagnostics]).toEqual([path, []]);
    }
    const packages = JSON.parse(readFileSync(join(home, 'kilnlog/package.json'), 'utf8')) as object;
    expect(packages).toMatchObject({ dependencies: { '@ferrowick.example/zones': '^1.9.3' } });
    expect((await syndexa(['placebook', 'kilnlog', '--title', 'kilnlog', '--check'], home)).code).toBe(0);
    expect((await syndexa(['undo', 'kilnlog'], home)).code).toBe(0);
    expect(filesBelow(join(home, 'kilnlog'))).toEqual(filesBelow(join(root, 'demo/trees/kilnlog')));
  });
});

describe('Kilnlog Studio', () => {
  it('gives each build its own app IDs when its configuration is run', async () => {
    await record(readFileSync(join(root, 'demo/roster.yaml'), 'utf8'));
    cpSync(join(root, 'demo/trees/kilnlog-expo'), join(home, 'studio'), { recursive: true });
    const command = ['wire', 'studio', '--title', 'kilnlog-expo', '--call-sites', '--write'];
    const { code, err } = await syndexa(command, home);
    expect([code, err]).toEqual([0, '']);
    const script = readFileSync(join(home, 'studio/app.config.js'), 'utf8');
    expect(await format(script, { parser: 'babel', singleQuote: true })).toBe(script);
    const { build } = JSON.parse(readFileSync(join(home, 'studio/eas.json'), 'utf8')) as {
      build: Record<string, { env?: Record<string, string> }>;
    };
    const run =
      'console.log(JSON.stringify(require("./app.config.js")({ config: require("./app.json").expo })))';
    for (const [profile, ids] of Object.entries({
      development: ['CH-A-100001-SAMPLE0A', 'CH-I-100001-SAMPLE0I'],
      preview: ['CH-A-100001-SAMPLE0A', 'CH-I-100001-SAMPLE0I'],
      production: ['CH-A-204418-KLS4D7RB', 'CH-I-204418-KLS8W2QZ'],
    })) {
      const env = { ...process.env, ...build[profile]?.env };
      const made = execFileSync(process.execPath, ['-e', run], {
        cwd: join(home, 'studio'),
        env,
        encoding: 'utf8',
      });
      expect(JSON.parse(made)).toMatchObject({
        name: 'Kilnlog Studio',
        plugins: [['@cobaltheron.example/react-native', { androidAppId: ids[0], iosAppId: ids[1] }]],
        ios: { infoPlist: { SKAdNetworkItems: [{}, {}] } },
      });
    }
    expect((await syndexa(['undo', 'studio'], home)).code).toBe(0);
    expect(filesBelow(join(home, 'studio'))).toEqual(filesBelow(join(root, 'demo/trees/kilnlog-expo')));
  });
});

describe('Tidewick Lite', () => {
  const ids = { android: 'example.saltmarsh.tidewick.lite', ios: 'example.saltmarsh.tidewick-tides.lite' };
  const stages = { test: ['debug', 'staging'], production: ['release'] };
  const namespace = 'example.saltmarsh.tidewick';

  it('compiles in every variant, from nothing and with an ID that stood there for all', async () => {
    const title = titleOn(['cobalt-heron', 'quincebury'], ids, stages);
    await record(stringify({ syndexa: 1, titles: { lite: title } }));
    for (const standing of [false, true]) {
      const folder = standing ? 'standing' : 'bare';
      cpSync(join(root, 'demo/trees/tidewick-lite'), join(home, folder), { recursive: true });
      const app = join(home, folder, 'android/app');
      if (standing) {
        const path = join(app, 'src/main/AndroidManifest.xml');
        const key =
          '<meta-data android:name="example.cobaltheron.ads.APP_ID" android:value="@string/heron" />';
        writeFileSync(
          path,
          readFileSync(path, 'utf8').replace('</application>', `    ${key}\n    </application>`),
        );
        writeFileSync(
          join(app, 'src/main/res/values/ids.xml'),
          '<resources>\n    <string name="heron">CH-A-310772-QK4T8W2N</string>\n</resources>\n',
        );
      }
      expect((await syndexa(['wire', folder, '--title', 'lite', '--write'], home)).code).toBe(0);
      for (const [type, id] of [
        ['debug', 'CH-A-100001-SAMPLE0A'],
        ['staging', 'CH-A-100001-SAMPLE0A'],
        ['release', 'CH-A-310772-QK4T8W2N'],
      ] as const) {
        const compiled = compile(app, namespace, ['main', type]);
        expect(appIdIn(compiled)).toBe(id);
        expect(compiled.manifest).toContain('example.quincebury.client.PageActivity');
        expect(compiled.resources).toContain(
          type === 'release' ? 'qb.abcdefghijabcdefghij' : 'qb.tryouttryouttryout22',
        );
      }
      const keys = keysOf(join(home, folder, 'ios/Tidewick/Info.plist'));
      expect(keys.CobaltHeronAppID).toBe('$(COBALT_HERON_APP_ID)');
      expect(keys.NSUserTrackingUsageDescription).toBe('Kelp is paid for by ads.');
    }
  });
});

describe('a real tree that nobody here wrote', () => {
  const rosterOf = `syndexa: 1
titles:
  hello:
    name: Hello
    editions:
      android: { identifier: com.helloworld }
      ios: { identifier: org.reactjs.native.example.HelloWorld }
    networks:
      cobalt-heron:
        android: { production: { app: CH-A-310772-QK4T8W2N } }
        ios: { production: { app: CH-I-310772-M6R9V3XC } }
    placements:
      home-footer:
        format: banner
        units:
          cobalt-heron:
            android: { production: CH-U-310772-BBBB1111 }
            ios: { production: CH-U-310772-CCCC2222 }
`;

  it('goes from missing to wired on both platforms, and no other byte changes', async () => {
    const tree = join(home, 'hello');
    cpSync(join(root, 'node_modules/@react-native-community/template/template'), tree, { recursive: true });
    const before = filesBelow(tree);
    await record(rosterOf);

    const missing = await syndexa(['check', 'hello', '--title', 'hello', '--json'], home);
    expect(missing.code).toBe(1);
    const rules = (text: string) =>
      (JSON.parse(text) as { findings: { rule: string; platform: string }[] }).findings
        .map(({ rule, platform }) => `${platform} ${rule}`)
        .sort();
    expect(rules(missing.out)).toEqual([
      'android app-id/missing',
      'android build/dependency-missing',
      'android manifest/permission-missing',
      'android tree/cannot-tell',
      'android unit-id/not-in-build',
      'ios app-id/missing',
      'ios attribution/id-missing',
      'ios build/dependency-missing',
      'ios privacy/tracking-text-missing',
      'ios unit-id/not-in-build',
    ]);

    const wired = await syndexa(['wire', 'hello', '--title', 'hello', '--write', '--json'], home);
    expect(wired.code).toBe(0);
    const { edits } = JSON.parse(wired.out) as {
      edits: { path: string; edits: { start: number; end: number; text: string }[] }[];
    };
    const after = filesBelow(tree);
    const touched = edits.map(({ path }) => path);
    expect(touched).toEqual([
      'android/app/src/debug/res/values/syndexa.xml',
      'android/app/src/main/AndroidManifest.xml',
      'android/app/src/release/res/values/syndexa.xml',
      'ios/HelloWorld.xcodeproj/project.pbxproj',
      'ios/HelloWorld/Info.plist',
      'ios/Syndexa/HelloWorld.Debug.xcconfig',
      'ios/Syndexa/HelloWorld.Release.xcconfig',
      'package.json',
      'src/ads/placebook.ts',
    ]);
    expect(Object.keys(after).sort()).toEqual([...new Set([...Object.keys(before), ...touched])].sort());
    for (const [path, bytes] of Object.entries(before))
      if (!touched.includes(path)) expect(after[path]?.equals(bytes)).toBe(true);
    // In a file that was edited, every byte outside the edits stands as it stood.
    for (const { path, edits: changes } of edits) {
      const old = before[path]?.toString('utf8');
      if (old === undefined) continue;
      let now = after[path]!.toString('utf8');
      for (const [at, { start, end, text }] of [...changes.entries()].reverse()) {
        const shift = changes
          .slice(0, at)
          .reduce((sum, other) => sum + other.text.length - (other.end - other.start), 0);
        expect(now.slice(start + shift, start + shift + text.length)).toBe(text);
        now = now.slice(0, start + shift) + old.slice(start, end) + now.slice(start + shift + text.length);
      }
      expect(now).toBe(old);
    }

    const left = await syndexa(['check', 'hello', '--title', 'hello', '--json'], home);
    expect(rules(left.out)).toEqual([
      'android code/never-started',
      'android tree/cannot-tell',
      'android unit-id/not-in-build',
      'ios code/never-started',
      'ios privacy/tracking-text-missing',
      'ios unit-id/not-in-build',
      'null build/not-locked',
    ]);
    expect((await syndexa(['wire', 'hello', '--title', 'hello'], home)).out).toContain(
      'No file needs an edit.',
    );

    const keys = keysOf('hello/ios/HelloWorld/Info.plist');
    expect(keys.CobaltHeronAppID).toBe('$(COBALT_HERON_APP_ID)');
    expect(keys.CFBundleDisplayName).toBe('Hello App Display Name');
    run('xmllint', ['--noout', 'hello/android/app/src/main/AndroidManifest.xml']);
    for (const [configuration, pods, id] of [
      ['Debug', 'debug', 'CH-I-100001-SAMPLE0I'],
      ['Release', 'release', 'CH-I-310772-M6R9V3XC'],
    ] as const)
      expect(readFileSync(join(tree, `ios/Syndexa/HelloWorld.${configuration}.xcconfig`), 'utf8')).toBe(
        `// Base configuration file, written by Syndexa.\n#include? "../Pods/Target Support Files/Pods-HelloWorld/Pods-HelloWorld.${pods}.xcconfig"\nCOBALT_HERON_APP_ID = ${id}\n`,
      );
    expect(readdirSync(tree).filter((name) => name.startsWith('.syndexa'))).toEqual([]);
  });
});
