import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { schemaDocuments } from '../../src/api/schemas.js';
import type { TagLint, TagPlayed, TagReport } from '../../src/api/tags.js';
import { writeRoster } from '../../src/core/roster/document.js';
import { paintFor } from '../../src/cli/io.js';
import { run } from '../../src/cli/program.js';
import { askForTag, namedHosts, tryFile } from '../../src/api/tag-net.js';
import { decodeXml } from '../../src/core/formats/xml/decode.js';
import { testPartner } from '../support/partner.js';
import { titleOn } from '../support/wiring.js';
import { inline, mediaFile, tag, wrapper } from '../support/vast.js';
import { recorder } from '../support/recorder.js';

const home = mkdtempSync(join(tmpdir(), 'syndexa-tags-'));
afterAll(() => rmSync(home, { recursive: true, force: true }));

const asked: string[] = [];
type Serve = (request: IncomingMessage, response: ServerResponse) => void;
const pages = new Map<string, string | Buffer | Serve>();
let server: Server;
let base = '';
beforeAll(async () => {
  server = createServer((request, response) => {
    asked.push(`${request.method} ${request.url}`);
    const page = pages.get(new URL(request.url ?? '/', 'http://x').pathname);
    if (typeof page === 'function') return page(request, response);
    response.statusCode = page === undefined ? 404 : 200;
    response.setHeader('Content-Type', 'application/xml');
    response.end(request.method === 'HEAD' ? undefined : page);
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => {
  server.closeAllConnections();
  server.close();
});
beforeEach(() => {
  asked.length = 0;
  pages.clear();
});
const host = () => base.replace('http://', '');

async function syndexa(...args: string[]) {
  const io = recorder({
    input: () => Promise.resolve(new TextEncoder().encode(tag(inline()))),
    width: 100,
    columns: 100,
    cwd: home,
    env: { SYNDEXA_HOME: home },
  });
  const code = await run(args, io, paintFor(false));
  return { code, out: io.text, err: io.errors };
}
const shown = async (...args: string[]) => {
  const { code, out, err } = await syndexa('tag', 'show', '--json', ...args);
  expect(err).toBe('');
  const report = JSON.parse(out) as TagReport;
  const ajv = new Ajv2020({ strict: false });
  expect([ajv.validate(schemaDocuments().tag!, report), ajv.errors]).toEqual([true, null]);
  return { code, report };
};
const filmHere = (name: string) => ({ ...mediaFile(name), text: `${base}/${name}.mp4` });

const answering =
  (status: number): Serve =>
  (_, response) =>
    void response.writeHead(status).end();
const forEver: Serve = (_, response) => void response.writeHead(302, { Location: '/start' }).end();
const breaking: Serve = (_, response) => void response.socket?.destroy();
const packed: Serve = (_, response) =>
  void response.writeHead(200, { 'Content-Encoding': 'gzip' }).end(gzipSync(Buffer.alloc(50_000_000, ' ')));

/** An endless answer. */
const endless: Serve = (_, response) => {
  const more = Buffer.alloc(200_000, ' ');
  const write = (): void => {
    if (response.destroyed) return;
    response.write(more);
    setImmediate(write);
  };
  write();
};

describe('tag show', () => {
  it('follows wrappers over the network, checks its media files, and says what plays', async () => {
    pages.set('/start', (_, response) => response.writeHead(302, { Location: '/moved' }).end());
    pages.set('/moved', tag(wrapper(`${base}/ad?n=[CACHEBUSTING]`)));
    pages.set('/ad', tag(inline({ media: [filmHere('gone'), filmHere('there')] })));
    pages.set('/there.mp4', 'film');
    const { code, report } = await shown(`${base}/start`);
    expect(code).toBe(0);
    expect(report.documents.map(({ redirects, depth, failed }) => [redirects, depth, failed])).toEqual([
      [1, 0, null],
      [0, 1, null],
    ]);
    expect(report.ads[0]).toMatchObject({
      systems: ['Marsh Exchange', 'Tallowfield'],
      choice: { file: { url: `${base}/there.mp4` }, passed: [{ why: 'Its server responds with 404.' }] },
    });
    expect(asked).toContain('HEAD /there.mp4');
    expect(asked.some((one) => /^GET \/ad\?n=\d{8}$/.test(one))).toBe(true);
    const { out } = await syndexa('tag', 'show', `${base}/start`);
    expect(out).toContain('1 redirect');
    expect(out).toMatch(/plays +\S+there\.mp4/);
  });

  it('reads a file and standard input, and asks for nothing where nothing is to be asked', async () => {
    writeFileSync(join(home, 'tag.xml'), tag(inline()));
    for (const from of ['tag.xml', '-']) expect((await shown(from, '--no-media')).code).toBe(0);
    expect(asked).toEqual([]);
  });

  it('ends with 1 where a document breaks the standard, or no ad is shown', async () => {
    writeFileSync(join(home, 'faulty.xml'), tag(inline()).replace('00:00:15', 'soon'));
    const { code, out } = await syndexa('tag', 'show', 'faulty.xml', '--no-media');
    expect(code).toBe(1);
    expect(out).toMatch(/faulty\.xml:\d+:\d+ {2}■ error {2}<Duration> is "soon"/);
    writeFileSync(join(home, 'empty.xml'), '<VAST version="4.2"/>');
    expect((await shown('empty.xml')).code).toBe(1);
  });

  it.each([
    ['ftp://tags.example/x', 'not an address that a player can fetch'],
    ['absent.xml', 'absent.xml cannot be read'],
  ])('refuses %s', async (address, message) => {
    const { code, err } = await syndexa('tag', 'show', address);
    expect([code, err]).toEqual([2, expect.stringContaining(message)]);
  });

  it.each<[string, () => string | Buffer | Serve, string]>([
    ['loops', () => tag(wrapper(`${base}/start`)), 'leads back to'],
    ['is a page', () => '<html><body>Sign in</body></html>', 'is not a VAST document'],
    ['is broken', () => '<VAST version="4.2"><Ad>', 'never closed'],
    ['sends on for ever', () => forEver, 'more than five times'],
    ['fails', () => answering(503), 'responds 503'],
    ['has no ad', () => answering(204), 'has no ad'],
    ['breaks off', () => breaking, 'cannot be reached'],
    ['never ends', () => endless, 'larger than 2 MB'],
    ['is packed, though nobody asked for it', () => packed, 'not text in a known encoding'],
    ['is no text', () => Buffer.from([0xff, 0x00, 0xc3, 0x28]), 'not text in a known encoding'],
  ])('says why there is no ad where a tag %s', async (_, page, message) => {
    pages.set('/start', page());
    const { code, out } = await syndexa('tag', 'show', `${base}/start`);
    expect([code, out]).toEqual([1, expect.stringContaining(message)]);
  });

  it('does not ask machines of its own network, whatever a document says, unless they are named', async () => {
    pages.set('/inside', tag(inline()));
    writeFileSync(join(home, 'outside.xml'), tag(wrapper(`${base}/inside`)));
    const kept = await shown('outside.xml', '--no-media');
    expect([kept.code, asked]).toEqual([1, []]);
    expect(kept.report.documents[1]?.failed).toBe('unreachable');
    expect((await shown('outside.xml', '--no-media', '--allow', host())).code).toBe(0);
    expect(asked).toEqual(['GET /inside']);
  });
});

interface Fired {
  url: string;
  outcome: string;
}

describe('tag play', () => {
  const actions = ['--do', 'pause@4s', 'resume@6.5', 'skip@9000ms'];

  it('lists what is called when, and calls nothing', async () => {
    pages.set('/start', tag(inline({ skip: '00:00:05', media: [filmHere('film')] })));
    pages.set('/film.mp4', 'film');
    const { code, out } = await syndexa('tag', 'play', `${base}/start`, ...actions);
    expect(code).toBe(0);
    expect(
      out
        .split('\n')
        .filter((line) => /[●○▶]/.test(line))
        .map((line) => line.trim().split(/\s+/).slice(0, 4).join(' ')),
    ).toEqual([
      '0 s ● impression',
      '0 s ● start',
      '2 s ● progress',
      '2 s ● viewable',
      '3.75 s ● firstQuartile',
      '4 s ● pause',
      '6.5 s ● resume',
      '9 s ● skip',
      '9 s ▶ content',
    ]);
    expect(out).toContain('none was made');
    expect(asked).toEqual(['GET /start', 'HEAD /film.mp4']);
  });

  it('calls with --fire, at named hosts alone', async () => {
    const text = tag(inline({ media: [filmHere('film')] })).replaceAll(
      'https://ads.tallowfield.example/in/',
      `${base}/in/`,
    );
    writeFileSync(
      join(home, 'fire.xml'),
      text.replace(`${base}/in/midpoint`, 'https://others.example/midpoint'),
    );
    const args = ['tag', 'play', 'fire.xml', '--no-media', '--json', '--fire'];
    const quiet = JSON.parse((await syndexa(...args)).out) as TagPlayed & { fired: Fired[] };
    expect(asked).toEqual([]);
    expect(new Set(quiet.fired.map(({ outcome }) => outcome))).toEqual(
      new Set(['skipped: the host is not given with --allow']),
    );
    const { fired } = JSON.parse((await syndexa(...args, '--allow', host())).out) as typeof quiet;
    expect(fired.filter(({ outcome }) => outcome === '404')).toHaveLength(fired.length - 1);
    expect(fired.find(({ url }) => url.includes('others'))?.outcome).toMatch(/^skipped/);
    expect(asked.filter((one) => one.startsWith('GET /in/'))).toHaveLength(fired.length - 1);
  });

  it('refuses actions that cannot be', async () => {
    for (const wrong of ['jump@3', 'pause', 'pause@soon', 'pause@-1']) {
      const { code, err } = await syndexa('tag', 'play', 'tag.xml', '--do', wrong);
      expect([code, err]).toEqual([2, expect.stringContaining('is not an action with a time')]);
    }
  });
});

describe('tag lint', () => {
  it('checks the addresses on record, of all titles or of one', async () => {
    const ids = { android: 'example.brine.kelp', ios: 'example.brine.kelp' };
    const kelp = titleOn(['tallowfield', 'cobalt-heron'], ids);
    const other = { ...structuredClone(kelp), name: 'Wrack' };
    const wrack = other.placements['spot-tallowfield']?.units.tallowfield?.ios;
    if (wrack) wrack.production = 'https://vast.tallowfield.example/4/tf31077/m/wrac1234.xml';
    delete other.placements['spot-cobalt-heron'];
    delete other.placements['spot-tallowfield']?.units.tallowfield?.android;
    const editions = { ios: { identifier: 'example.brine.wrack' } };
    const titles = { kelp, wrack: { ...other, editions, networks: { tallowfield: {} } } };
    writeFileSync(join(home, 'roster.yaml'), writeRoster({ syndexa: 1, titles }));
    expect((await syndexa('roster', 'import', 'roster.yaml', '--yes')).code).toBe(0);
    const { code, out } = await syndexa('tag', 'lint');
    expect([code, out]).toEqual([0, expect.stringMatching(/\d+ tags? on record, nothing found\./)]);
    const tags = JSON.parse((await syndexa('tag', 'lint', '--json')).out) as TagLint;
    expect(tags.map((one) => one.title)).toEqual(['kelp', 'kelp', 'wrack']);
    const title = 'wrack';
    const one = JSON.parse((await syndexa('tag', 'lint', '--title', title, '--json')).out) as TagLint;
    expect(one).toEqual(tags.filter((each) => each.title === title));
    expect((await syndexa('tag', 'lint', '--title', 'nope')).code).toBe(2);
  });
});

describe('the simulated partner', () => {
  it('is asked for hosts that are made up, and says why it has no ad', async () => {
    const partner = await testPartner();
    try {
      writeFileSync(join(home, 'partner.json'), JSON.stringify({ url: partner.url, token: partner.token }), {
        mode: 0o600,
      });
      const sample = 'https://vast.tallowfield.example/4/tf00001/a/samplea1.xml';
      expect((await shown(sample)).report.documents[0]?.failed).toBe('unreachable');
      const { code, report } = await shown(sample, '--partner');
      expect([code, report.ads[0]?.title, report.insecure]).toEqual([0, 'Test ad of Tallowfield', []]);
      const played = await syndexa('tag', 'play', sample, '--partner', '--fire', '--json');
      const { fired } = JSON.parse(played.out) as { fired: Fired[] };
      expect(new Set(fired.map(({ outcome }) => outcome))).toEqual(new Set(['200']));
      const says = async (...args: string[]) => (await syndexa('partner', ...args)).out;
      expect(await says('market', 'tallowfield', '--fill', '60', '--latency', '5')).toContain(
        'fills 60 % of requests',
      );
      expect((await syndexa('partner', 'device', 'tallowfield', 'desk')).code).toBe(4);
      await partner.account('tallowfield', 'tallow-key-of-brine');
      expect(await says('device', 'tallowfield', 'desk')).toContain('gets test ads');
      expect(await says('lift', 'tallowfield')).toContain('serves ads to every account again');
      const unknown = await shown('https://vast.tallowfield.example/4/tf31077/a/abcd1234.xml', '--partner');
      expect(unknown.code).toBe(1);
      expect(unknown.report.deadEnds[0]?.why).toContain('a reason for no ad: There is no unit');
    } finally {
      await partner.close();
      rmSync(join(home, 'partner.json'));
    }
    expect((await syndexa('tag', 'show', 'https://a.example/x', '--partner')).err).toContain(
      'No simulated partner is running.',
    );
  });
});

describe('what comes over the network', () => {
  it('is not waited for longer than a player waits', async () => {
    pages.set('/start', () => undefined);
    const named = namedHosts(base, []);
    await expect(askForTag(`${base}/start`, { named, patience: 150 })).resolves.toMatchObject({
      failed: 'timeout',
    });
  });

  it('is tried with a request for one byte where HEAD is not taken', async () => {
    pages.set('/film.mp4', (request, response) =>
      response.writeHead(request.method === 'HEAD' ? 405 : 206).end('f'),
    );
    await expect(tryFile(`${base}/film.mp4`, namedHosts(base, []))).resolves.toMatchObject({ status: 206 });
  });

  it('is read in the encoding that it is in', () => {
    const text =
      '<?xml version="1.0" encoding="ENCODING"?><VAST version="4.2"><!-- Gezeiten für €uch --></VAST>';
    const utf16 = Buffer.concat([
      Buffer.from([0xff, 0xfe]),
      Buffer.from(text.replace('ENCODING', 'UTF-16'), 'utf16le'),
    ]);
    expect(decodeXml(utf16)).toContain('für €uch');
    const latin = Buffer.from(text.replace('ENCODING', 'ISO-8859-1').replace('€', ''), 'latin1');
    expect(decodeXml(latin)).toContain('für uch');
    expect(decodeXml(Buffer.from(text.replace('ENCODING', 'UTF-8')))).toContain('für €uch');
    expect(decodeXml(latin, 'utf-8')).toBeUndefined();
    expect(decodeXml(Buffer.from(text), 'no-such-encoding')).toBeUndefined();
  });
});
