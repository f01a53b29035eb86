import { spawn } from 'node:child_process';
import {
  chmodSync,
  chownSync,
  existsSync,
  mkdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { schemaDocuments } from '../../src/api/schemas.js';
import { syndexa, type CliResult } from '../support/cli.js';
import { http, temporaryFolder } from '../support/service.js';
import {
  androidFiles,
  appIdMetaData,
  iosFiles,
  manifest,
  namingClass,
  plist,
  root,
} from '../support/trees.js';

const ajv = new Ajv2020({ strict: false, validateFormats: false });
const validators = Object.fromEntries(
  Object.entries(schemaDocuments()).map(([name, schema]) => [name, ajv.compile(schema)]),
);

/** Output with --json: one document on standard output, nothing else, of the published shape. */
function shaped(name: string, { out, err }: CliResult): any {
  expect(err).toBe('');
  const value: unknown = JSON.parse(out);
  const validate = validators[name]!;
  expect(validate(value) ? [] : validate.errors).toEqual([]);
  return value;
}

let home: string;
beforeEach(() => {
  home = temporaryFolder();
});
afterEach(() => rmSync(home, { recursive: true, force: true }));

function write(at: string, files: Record<string, string | Buffer>): void {
  for (const [path, content] of Object.entries(files)) {
    mkdirSync(join(home, at, path, '..'), { recursive: true });
    writeFileSync(join(home, at, path), content);
  }
}

async function kelp(): Promise<void> {
  const document = `syndexa: 1
titles:
  kelp:
    name: Kelp
    editions: { android: { identifier: example.brine.kelp }, ios: { identifier: example.brine.kelp } }
    networks:
      cobalt-heron:
        android: { production: { app: CH-A-310772-QK4T8W2N } }
        ios: { production: { app: CH-I-310772-M6R9V3XC } }
`;
  write('.', { 'kelp.yaml': document });
  expect((await syndexa(['roster', 'import', 'kelp.yaml', '--yes'], home)).code).toBe(0);
}

describe('survey', () => {
  it('needs no record, and prints every fact with its place', async () => {
    write('tree', { ...androidFiles(), ...iosFiles() });
    const { code, out, err } = await syndexa(['survey', 'tree'], home);
    expect([code, err]).toEqual([0, '']);
    for (const part of [
      'app/src/main/AndroidManifest.xml:7:9',
      'app/src/release/res/values/ids.xml:2:5',
      'CH-I-310772-M6R9V3XC',
      'debug (no stage)',
      'Kelp.xcodeproj/project.pbxproj:',
    ])
      expect(out).toContain(part);
    const survey = shaped('survey', await syndexa(['survey', 'tree', '--json'], home));
    expect(Object.keys(survey)).toEqual(
      expect.arrayContaining(['tree', 'stacks', 'editions', 'facts', 'unresolved']),
    );
    expect(survey.facts[0]).toMatchObject({
      kind: expect.any(String),
      platform: 'android',
      variants: expect.any(Array),
      value: expect.any(String),
      place: { path: expect.any(String), line: expect.any(Number), column: expect.any(Number) },
      chain: expect.any(Array),
    });
  });

  it('says so where nothing is recognised, and refuses what is no folder', async () => {
    write('empty', { 'readme.txt': 'x' });
    expect((await syndexa(['survey', 'empty'], home)).out).toContain('Nothing here is recognised');
    const { code, err } = await syndexa(['survey', 'nowhere'], home);
    expect(code).toBe(2);
    expect(err).toMatch(/nowhere cannot be read: it does not exist\.\n {2}Name the folder/);
  });
});

describe('check', () => {
  it.each(['tidewick', 'plumebook', 'kilnlog', 'kilnlog-expo', 'orrery-drift', 'parcelgull'])(
    'finds every fault that the demo lists of %s',
    async (name) => {
      await syndexa(['roster', 'import', join(root, 'demo/roster.yaml'), '--yes'], home);
      const report = shaped(
        'check',
        await syndexa(['check', join(root, 'demo/trees', name), '--title', name, '--json'], home),
      );
      const [, table = ''] = readFileSync(join(root, 'demo/FAULTS.md'), 'utf8').split(`demo/trees/${name}\``);
      const faults = [
        ...(table.split('\n## ')[0] ?? '').matchAll(/^\| \d+ \| `([^`]+)` \| [^|]*\| `([^`]+)` \|$/gm),
      ];
      expect(faults.length).toBeGreaterThanOrEqual(8);
      for (const [, place, rule] of faults) {
        const found = report.findings.some(
          (finding: { rule: string; place: { path: string; line: number } | null }) =>
            finding.rule === rule && `${finding.place?.path}:${finding.place?.line}` === place,
        );
        expect([place, rule, found]).toEqual([place, rule, true]);
      }
    },
  );
});

describe('bad input', () => {
  it.each<[string, Record<string, string | Buffer>, string]>([
    [
      'malformed XML',
      { 'app/src/main/AndroidManifest.xml': '<manifest>\n  <application\n' },
      'app/src/main/AndroidManifest.xml:2:3',
    ],
    [
      'an XML entity bomb',
      {
        'app/src/main/AndroidManifest.xml': `<!DOCTYPE m [<!ENTITY a "x">${Array.from({ length: 20 }, (_, i) => `<!ENTITY b${i} "${'&a;'.repeat(50)}">`).join('')}]>\n<manifest>&b19;</manifest>`,
      },
      'example.brine.kelp',
    ],
    [
      'a property list with a wrong type',
      { 'Kelp/Info.plist': plist('\t<key>CobaltHeronAppID</key>\n\t<array/>') },
      'the key holds an array, not a string',
    ],
    [
      'a Gradle file that is half a template',
      {
        'app/build.gradle.kts':
          'plugins { id("com.android.application") }\nandroid { defaultConfig { applicationId = "{{ id }"\n {% endif %}',
      },
      'app/build.gradle.kts:',
    ],
    [
      'a binary file with a manifest’s name',
      { 'app/src/main/AndroidManifest.xml': Buffer.from([3, 0, 8, 0, 1, 2, 3]) },
      'It contains a zero byte, so it is binary. (Byte 1.)',
    ],
    [
      'a file that is not UTF-8',
      { 'app/src/main/AndroidManifest.xml': Buffer.from([60, 0xff, 0xfe, 62]) },
      'It is not valid UTF-8. (Byte 1.)',
    ],
  ])('%s: it is said, and everything else is surveyed', async (_, files, part) => {
    write('tree', { ...androidFiles(), ...iosFiles(), ...files });
    const { code, out, err } = await syndexa(['survey', 'tree'], home);
    expect([code, err]).toEqual([0, '']);
    expect(out).toContain(part);
    expect(out).toContain('iOS  example.brine.kelp');
  });

  it('a string resource of 50 MB, and a link that leaves the tree', async () => {
    write('tree', { ...androidFiles(), 'app/src/main/res/values/huge.xml': '<resources>' });
    truncateSync(join(home, 'tree/app/src/main/res/values/huge.xml'), 50 * 1024 * 1024);
    write('.', { 'secret.xml': '<resources><string name="heron">SECRET</string></resources>' });
    symlinkSync(join(home, 'secret.xml'), join(home, 'tree/app/src/release/res/values/zz.xml'));
    const { code, out } = await syndexa(['survey', 'tree'], home);
    expect(code).toBe(0);
    expect(out).toContain(
      'huge.xml:1:1  Not read: it has 52428800 bytes, and files over 16777216 are left out.',
    );
    expect(out).toContain('zz.xml:1:1  Not read: it is a symbolic link that leads out of the tree.');
    expect(out).not.toContain('SECRET');
    expect(out).toContain('CH-A-310772-QK4T8W2N');
  });

  it('a file that may not be read', async () => {
    write('tree', androidFiles());
    const locked = join(home, 'tree/app/src/release/res/values/ids.xml');
    chmodSync(locked, 0o000);
    const nobody = 65_534;
    const asRoot = process.getuid?.() === 0;
    if (asRoot) chownSync(home, nobody, nobody);
    const { SYNDEXA_URL: _, ...env } = process.env;
    const child = spawn(process.execPath, [join(root, 'bin/run-bundle.cjs'), 'survey', 'tree'], {
      cwd: home,
      env: { ...env, SYNDEXA_HOME: join(home, 'data'), NO_COLOR: '1' },
      ...(asRoot ? { uid: nobody, gid: nobody } : {}),
    });
    let out = '';
    child.stdout.setEncoding('utf8').on('data', (chunk: string) => (out += chunk));
    expect(await new Promise((resolve) => child.on('close', resolve))).toBe(0);
    expect(out).toContain('ids.xml:1:1  Not read: permission denied.');
    expect(out).toContain('CH-A-100001-SAMPLE0A');
  });
});

describe('wire', () => {
  it('names the title by the tree’s identifiers, or asks for it', async () => {
    await kelp();
    write('tree', androidFiles({ 'app/src/main/AndroidManifest.xml': manifest(appIdMetaData('x')) }));
    expect((await syndexa(['wire', 'tree'], home)).out).toContain('--title kelp --write');
    write(
      'other',
      androidFiles({
        'app/build.gradle.kts': androidFiles()['app/build.gradle.kts']!.replace(
          /example\.brine\.kelp/g,
          'a.b',
        ),
      }),
    );
    expect(await syndexa(['wire', 'other'], home)).toMatchObject({
      code: 2,
      err: expect.stringContaining('--title TITLE'),
    });
  });
});

describe('networks', () => {
  it('may be added by a file in the data folder: then every command knows them', async () => {
    const reed = readFileSync(join(root, 'profiles/cobalt-heron.yaml'), 'utf8')
      .replace(/cobalt-heron/g, 'reedbank')
      .replace(/Cobalt Heron/g, 'Reedbank')
      .replace(/CH-/g, 'RB-')
      .replace(/cobaltheron/g, 'reedbank')
      .replace(/CobaltHeron/g, 'Reedbank')
      .replace(/COBALT_HERON/g, 'REEDBANK')
      .replace(/cobalt_heron/g, 'reedbank');
    write('profiles', { 'reedbank.yaml': reed });
    await syndexa(['title', 'add', 'kelp', '--android', 'example.brine.kelp'], home);
    expect(
      (
        await syndexa(
          ['id', 'set', 'kelp', 'RB-A-310772-QK4T8W2N', '--network', 'reedbank', '--platform', 'android'],
          home,
        )
      ).code,
    ).toBe(0);
    write('tree', androidFiles({ 'app/src/main/AndroidManifest.xml': namingClass(manifest('')) }));
    expect((await syndexa(['wire', 'tree', '--title', 'kelp', '--write'], home)).code).toBe(0);
    expect(readFileSync(join(home, 'tree/app/src/release/res/values/syndexa.xml'), 'utf8')).toContain(
      '<string name="reedbank_app_id" translatable="false">RB-A-310772-QK4T8W2N</string>',
    );
  });
});

describe('app-ads.txt', () => {
  const needed =
    '# Cobalt Heron\ncobaltheron.example, 204418, DIRECT, c0ba17he\n# Ferrowick\nferrowick.example, 420, DIRECT, fe770w1c\n# Marlstone\nmarlstone.example, SM-20418, DIRECT\nquarrymarket.example, 7731, RESELLER\n';

  it('is verified as a crawler would see it: redirects, pages, other answers, silence', async () => {
    await syndexa(['roster', 'import', join(root, 'demo/roster.yaml'), '--yes'], home);
    const site = createServer((request, response) => {
      if (request.url === '/moved') response.writeHead(302, { location: '/app-ads.txt' }).end();
      else if (request.url === '/loop') response.writeHead(302, { location: '/loop' }).end();
      else if (request.url === '/app-ads.txt') response.end(needed);
      else if (request.url === '/page') response.end('<!DOCTYPE html><html></html>');
      else if (request.url === '/huge') response.end('x'.repeat(3_000_000));
      else response.writeHead(404).end();
    });
    await new Promise<void>((resolve) => site.listen(0, '127.0.0.1', resolve));
    const { port } = site.address() as AddressInfo;
    const verify = (path: string) =>
      syndexa(['appads', 'verify', '--url', `http://127.0.0.1:${port}${path}`], home);
    try {
      expect((await verify('/moved')).code).toBe(0);
      for (const [path, text] of [
        ['/loop', 'redirected more than 5 times'],
        ['/huge', 'larger than 2000000 bytes'],
      ] as const) {
        expect(await verify(path)).toMatchObject({ code: 1, err: expect.stringContaining(text) });
      }
      expect((await verify('/page')).out).toContain('This is a web page, not an app-ads.txt file.');
    } finally {
      site.close();
    }
    expect((await verify('/app-ads.txt')).code).toBe(3);
  });
});

describe('a service that runs', () => {
  it('serve announces itself, answers, and stops on a signal with 0', async () => {
    const data = join(home, 'data');
    const child = spawn(
      process.execPath,
      [join(root, 'bin/syndexa'), 'serve', '--port', '0', '--root', home],
      { env: { ...process.env, SYNDEXA_HOME: data }, stdio: ['ignore', 'pipe', 'ignore'] },
    );
    const line = await new Promise<string>((resolve) =>
      child.stdout.setEncoding('utf8').once('data', resolve),
    );
    const url = /http:\/\/127\.0\.0\.1:\d+/.exec(line)![0];
    expect((await http(`${url}/healthz`)).body).toMatchObject({ service: 'syndexa', roots: [home] });
    expect(existsSync(join(data, 'service.json'))).toBe(true);
    write('tree', androidFiles());
    await syndexa(['title', 'add', 'kelp', '--android', 'example.brine.kelp'], data);
    expect((await syndexa(['title', 'link', 'kelp', join(home, 'tree')], data)).code).toBe(0);
    const closed = new Promise((resolve) => child.on('close', resolve));
    child.kill('SIGTERM');
    expect(await closed).toBe(0);
    expect(existsSync(join(data, 'service.json'))).toBe(false);
  });
});
