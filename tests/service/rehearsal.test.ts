import { createHash } from 'node:crypto';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { execFileSync } from 'node:child_process';
import { afterEach, describe, expect, it } from 'vitest';
import { partneredService, type PartneredService } from '../support/partner.js';
import { http, testService, type TestService } from '../support/service.js';
import { androidFiles } from '../support/trees.js';

const screen = 'app/src/main/java/example/brine/kelp/Screen.kt';
const unit = 'CH-U-310772-DDDD3333';
const files = androidFiles({
  [screen]: `class Screen : Activity() {
  private var ad: HeronInterstitial? = null
  override fun onCreate(state: Bundle?) { ad = HeronInterstitial.load(this, "${unit}", this) }
  fun onTap() { val now = ad
    if (now?.isReady == true) now.show(this) else next() }
  override fun onHeronFailed(code: Int) { next() }
  override fun onHeronClosed() { next() }
  override fun onDestroy() { ad?.release() }
}
`,
});
const title = {
  name: 'Kelp',
  editions: { android: { identifier: 'example.brine.kelp' } },
  networks: { 'cobalt-heron': { android: { production: { app: 'CH-A-310772-QK4T8W2N' } } } },
  placements: {
    page: { format: 'interstitial', units: { 'cobalt-heron': { android: { production: unit } } } },
  },
};
const hash = (text: string) => createHash('sha256').update(text).digest('hex');

async function send(
  url: string,
  tree: Record<string, string> = files,
  record: object = title,
): Promise<string> {
  const api = (path: string) => `${url}/api/v1${path}`;
  await http(api('/titles'), 'POST', { id: 'kelp', title: record });
  const manifest = {
    name: 'kelp',
    files: Object.entries(tree).map(([path, text]) => ({
      path,
      hash: hash(text),
      size: Buffer.byteLength(text),
    })),
  };
  const { body } = await http(api('/snapshots'), 'POST', manifest);
  await http(api('/blobs'), 'POST', {
    blobs: Object.values(tree).map((text) => ({
      hash: hash(text),
      base64: Buffer.from(text).toString('base64'),
    })),
  });
  return body.id as string;
}

describe('a rehearsal', () => {
  let stop: (() => Promise<unknown>) | undefined;
  let hanging: Server | undefined;
  afterEach(async () => {
    await stop?.();
    stop = undefined;
    hanging?.closeAllConnections();
    hanging?.close();
    hanging = undefined;
  });
  const own = async (): Promise<TestService> => {
    const service = await testService();
    stop = () => service.stop();
    return service;
  };
  const partnered = async (): Promise<PartneredService> => {
    const service = await partneredService(['cobalt-heron']);
    stop = () => service.stop();
    return service;
  };
  const rehearse = (url: string, snapshot: string, body: object = {}, headers = {}) =>
    http(`${url}/api/v1/snapshots/${snapshot}/rehearsal`, 'POST', { title: 'kelp', ...body }, headers);

  it('starts a partner with the IDs on record where none runs, and shows an ad of each', async () => {
    const { url } = await own();
    const snapshot = await send(url);
    const { status, body } = await rehearse(url, snapshot, { trace: true });
    expect([status, body.partner, body.title]).toEqual([200, 'started', 'kelp']);
    const verdicts = body.runs.map(({ variant, placements: [page] }: any) => [
      variant,
      page.verdict.is,
      page.verdict.test,
    ]);
    // The production unit is in the debug build, too: it earns money there.
    expect(verdicts).toEqual([
      ['debug', 'shown', false],
      ['release', 'shown', false],
    ]);
    const [{ exchanges }] = body.runs;
    expect(exchanges[0]).toMatchObject({ method: 'POST', network: 'cobalt-heron', status: 200 });
    expect(JSON.parse(exchanges[0].request)).toMatchObject({
      imp: [{ tagid: unit, instl: 1 }],
      app: { id: 'CH-A-100001-SAMPLE0A', bundle: 'example.brine.kelp' },
      device: { os: 'android', ext: { development: 1 } },
    });
    expect(exchanges.some(({ address }: any) => address.endsWith('/impression'))).toBe(true);
  });

  it('gives the same trace for the same seed, and another for another', async () => {
    const { url } = await own();
    const snapshot = await send(url);
    const traceOf = async (seed: number) =>
      JSON.stringify(
        (await rehearse(url, snapshot, { trace: true, seed })).body.runs.map(({ trace }: any) => trace),
      );
    const [one, same, other] = [await traceOf(7), await traceOf(7), await traceOf(8)];
    expect(same).toBe(one);
    expect(other).not.toBe(one);
  });

  it('asks the running partner, which knows nothing of the unit', async () => {
    const { url } = await partnered();
    const snapshot = await send(url);
    const { body } = await rehearse(url, snapshot);
    expect(body).toMatchObject({ partner: 'running', clean: false });
    expect(body.runs[0].placements[0].verdict).toMatchObject({ is: 'refused', code: 'not-found' });
    expect(body.findings.map(({ rule }: any) => rule)).toEqual(['rehearsal/refused']);
    expect(body.findings[0].mend).toContain('syndexa provision kelp');
  });

  it('suspends the account for the third click on an ad that earns money in a build for testing', async () => {
    const service = await partnered();
    const { partner, url } = service;
    const key = 'heron-key-of-kelp';
    const network = 'cobalt-heron';
    await partner.account(network, key, '310772');
    await partner.control('units', {
      network,
      key,
      platform: 'android',
      format: 'interstitial',
      name: 'Page',
      id: unit,
      serves: true,
    });
    await partner.control('market', { network, fill: 1 });
    const snapshot = await send(url);
    const clicking = `scenario: 1
name: Clicks
about: Somebody clicks every ad.
user: { ads: click }
steps:
  - { do: launch }
  - { do: visit, after: 3s, repeat: 5, each: [{ do: tap, after: 5s }, { do: wait, after: 40s }] }
`;
    const { body } = await rehearse(url, snapshot, {
      scenario: { document: clicking },
      variants: ['debug'],
      trace: true,
    });
    const { trace } = body.runs[0];
    const names = trace.map(({ what }: any) => what);
    expect(names.filter((name: string) => name === 'click')).toHaveLength(3);
    expect(names.indexOf('suspended')).toBeGreaterThan(names.lastIndexOf('click'));
    expect(trace.findLast(({ what }: any) => what === 'refused')).toMatchObject({
      code: 'account-suspended',
    });
    expect(body.findings.map(({ rule }: any) => rule).sort()).toEqual([
      'rehearsal/production-clicked',
      'rehearsal/refused',
    ]);
  });

  it('is on the board and done as a step when it is clean, until the tree is read anew', async () => {
    const { url } = await own();
    const sample = {
      ...files,
      [screen]: files[screen]!.replace(
        `"${unit}"`,
        `if (BuildConfig.DEBUG) "CH-U-100001-INTERS0A" else "${unit}"`,
      ),
    };
    const snapshot = await send(url, sample);
    const api = (path: string) => `${url}/api/v1${path}`;
    await http(api(`/snapshots/${snapshot}/check`), 'POST', { title: 'kelp' });
    const before = await http(api('/titles/kelp/steps'), 'GET');
    const step = ({ body }: any) => body.steps.find(({ step: name }: any) => name === 'test-run');
    expect(step(before)).toMatchObject({ command: 'syndexa rehearse DIR --title kelp' });
    const { body } = await rehearse(url, snapshot);
    expect(body.findings).toEqual([]);
    expect(body.clean).toBe(true);
    const cell = async () =>
      (await http(api('/titles/kelp/board'), 'GET')).body.rows
        .find(({ placement }: any) => placement === 'page')
        .cells.find(({ stage }: any) => stage === 'production').rehearsed;
    expect(await cell()).toMatchObject({ is: 'shown', scenario: 'First session', old: false });
    expect(step(await http(api('/titles/kelp/steps'), 'GET')).why).toContain('showed its test ads');
    const other = await send(url, {
      ...sample,
      'README.md': 'changed',
      [screen]: `${sample[screen]}\n// changed\n`,
    });
    await http(api(`/snapshots/${other}/check`), 'POST', { title: 'kelp' });
    expect(await cell()).toMatchObject({ old: true });
    expect(step(await http(api('/titles/kelp/steps'), 'GET')).why).toContain('has changed');
  });

  it('answers as JUnit XML, with a case for each placement in each variant', async () => {
    const { url } = await own();
    const snapshot = await send(url);
    const { text } = await rehearse(url, snapshot, { noFill: true }, { Accept: 'application/junit+xml' });
    expect(() => execFileSync('xmllint', ['--noout', '-'], { input: text, stdio: 'pipe' })).not.toThrow();
    expect([...text.matchAll(/<testsuite name="([^"]+)"/g)].map(([, name]) => name)).toEqual([
      'android debug',
      'android release',
    ]);
    expect(text).toContain('failures="2"');
  });

  it.each([
    ['a placement that is none', { placements: ['pier'] }, 'no placement pier'],
    ['a variant that is none', { variants: ['nightly'] }, 'no variant nightly'],
    ['a scenario that is none', { scenario: { name: 'picnic' } }, 'no scenario picnic'],
  ])('refuses %s', async (_, wanted, words) => {
    const { url } = await own();
    const { status, body } = await rehearse(url, await send(url), wanted);
    expect(status).toBe(422);
    expect(body.detail).toContain(words);
    expect(body.fix).toBeTruthy();
  });

  it('refuses a scenario that is too long for so many screens', async () => {
    const { url } = await own();
    const taps = '{ do: tap }, '.repeat(99);
    const document = `scenario: 1\nname: Long\nabout: A long scenario.\nsteps:\n  - { do: launch }\n${`  - { do: visit, repeat: 190, each: [${taps}] }\n`.repeat(1)}`;
    const screens = Array.from({ length: 12 }, (_, at) => at);
    const many = Object.fromEntries(
      screens.map((at) => [
        screen.replace('Screen', `Screen${at}`),
        files[screen]!.replace('class Screen', `class Screen${at}`),
      ]),
    );
    const units = (at: number) => `CH-U-310772-DDDD33${String(at).padStart(2, '0')}`;
    const placements = Object.fromEntries(
      screens.map((at) => [
        `page-${at}`,
        { format: 'interstitial', units: { 'cobalt-heron': { android: { production: units(at) } } } },
      ]),
    );
    const own12 = Object.fromEntries(
      Object.entries(many).map(([path, text], at) => [path, text.replace(unit, units(at))]),
    );
    const snapshot = await send(url, { ...files, ...own12 }, { ...title, placements });
    const { status, body } = await rehearse(url, snapshot, { scenario: { document } });
    expect([status, body.fix]).toEqual([422, expect.stringContaining('fewer placements')]);
  });

  it('says where an impossible scenario is wrong', async () => {
    const { url } = await own();
    const document = 'scenario: 1\nname: Made\nabout: A made scenario.\nsteps:\n  - { do: tap }\n';
    const { status, body } = await rehearse(url, await send(url), { scenario: { document } });
    expect(status).toBe(422);
    expect(body.errors).toEqual([
      expect.objectContaining({ field: 'steps.0', place: expect.objectContaining({ line: 5 }) }),
    ]);
  });

  it('ends with an error when the partner hangs', async () => {
    hanging = createServer((request, response) => {
      if (request.url === '/healthz') response.end('{}');
    });
    await new Promise<void>((resolve) => hanging?.listen(0, '127.0.0.1', resolve));
    const address = `http://127.0.0.1:${(hanging.address() as AddressInfo).port}`;
    const service = await testService({ env: { SYNDEXA_PARTNERS: address } });
    stop = () => service.stop();
    const snapshot = await send(service.url);
    const { status, body } = await rehearse(service.url, snapshot, {
      scenario: { name: 'ten-minutes' },
      variants: ['debug'],
    });
    expect([status, body.code]).toEqual([502, 'partner-unreachable']);
  });
});
