import { createHmac } from 'node:crypto';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { testPartner, type TestPartner } from '../support/partner.js';
import { http } from '../support/service.js';

let partner: TestPartner;
beforeEach(async () => {
  partner = await testPartner({ seed: 3 });
});
afterEach(() => partner.close());

const identifier = 'example.brine.kelp';

describe('where a profile says that its SDK asks', () => {
  const heron = 'serve.cobaltheron.example/openrtb';
  const request = (app: object = {}) => ({
    id: 'r1',
    imp: [{ id: '1', tagid: 'CH-U-100001-BANNER0A', banner: { w: 320, h: 50 } }],
    app: { bundle: identifier, ...app },
    device: { os: 'android', lmt: 1 },
  });

  it('the network answers', async () => {
    const { status, body } = await http(`${partner.url}/at/${heron}`, 'POST', request());
    expect([status, body.seatbid[0].seat]).toEqual([200, 'cobalt-heron']);
  });

  it('nobody else does', async () => {
    for (const address of ['serve.cobaltheron.example/other', 'nobody.example/openrtb'])
      expect((await http(`${partner.url}/at/${address}`, 'POST', request())).status).toBe(404);
  });

  it.each([
    ['an app ID of the other platform', 'CH-I-100001-SAMPLE0I', 'unit-elsewhere'],
    ['an app ID that nobody has', 'CH-A-310772-AAAA1111', 'not-found'],
  ])('%s is refused', async (_, id, code) => {
    const { body } = await http(`${partner.url}/at/${heron}`, 'POST', request({ id }));
    expect(body.ext.reasons).toEqual([expect.objectContaining({ code })]);
  });

  it('the sample app ID is taken', async () => {
    const { body } = await http(
      `${partner.url}/at/${heron}`,
      'POST',
      request({ id: 'CH-A-100001-SAMPLE0A' }),
    );
    expect(body.seatbid[0].bid[0].ext).toEqual({ test: true });
  });
});

describe('a notification', () => {
  const zone = '771442010001';
  const network = 'ferrowick';
  const key = 'ferrowick-key';
  const deliver = (unit: string, headers = {}) =>
    http(
      `${partner.url}/${network}/serve/notification`,
      'POST',
      { unit, platform: 'android', identifier },
      headers,
    );

  beforeEach(async () => {
    await partner.account(network, key, '420');
    await partner.control('units', {
      network,
      key,
      platform: 'android',
      format: 'notification',
      name: 'Evening',
      id: zone,
      serves: true,
    });
    await partner.control('market', { network, fill: 1 });
  });

  it('of a sample is delivered to anybody', async () => {
    expect((await deliver('771400000031')).body).toMatchObject({ test: true });
  });

  it('needs the credential that was deposited', async () => {
    expect((await deliver(zone)).body.error).toMatchObject({ code: 'credential-missing' });
    await partner.control('push', { network, key, credential: 'the-right-credential' });
    const wrong = await deliver(zone, { 'Push-Credential': 'another-credential' });
    expect([wrong.status, wrong.body.error.code]).toEqual([401, 'credential-missing']);
    expect(wrong.text).not.toContain('the-right-credential');
    const { status, body } = await deliver(zone, { 'Push-Credential': 'the-right-credential' });
    expect([status, body.test]).toEqual([200, false]);
  });

  it('is not sent for a unit of another format', async () => {
    expect((await deliver('771400000011')).body.error.code).toBe('format-wrong');
  });

  it('is refused when it cannot be read', async () => {
    const { status, body } = await http(`${partner.url}/${network}/serve/notification`, 'POST', { zone: 1 });
    expect([status, body.error.code]).toEqual([400, 'unreadable']);
  });
});

describe('a reward that a server is told of', () => {
  const network = 'cobalt-heron';
  const key = 'heron-key-of-brine';
  const unit = 'CH-U-310772-DDDD3333';
  let server: Server;
  let told: { body: string; signature: unknown }[];
  let status: number;
  let address: string;

  beforeEach(async () => {
    told = [];
    status = 204;
    server = createServer((request, response) => {
      let body = '';
      request.on('data', (chunk: Buffer) => (body += chunk.toString('utf8')));
      request.on('end', () => {
        told.push({ body, signature: request.headers['reward-signature'] });
        response.writeHead(status).end();
      });
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/rewards`;
    await partner.account(network, key, '310772');
    await partner.control('units', {
      network,
      key,
      platform: 'android',
      format: 'rewarded',
      name: 'Gift',
      id: unit,
      serves: true,
      settings: { reward: { amount: 2, item: 'pearl' } },
    });
    await partner.control('market', { network, fill: 1 });
  });
  afterEach(() => {
    server.closeAllConnections();
    server.close();
  });

  const watched = async () => {
    const { body } = await http(`${partner.url}/${network}/serve/openrtb`, 'POST', {
      id: 'r1',
      imp: [{ id: '1', tagid: unit, instl: 1, rwdd: 1, video: { mimes: ['video/mp4'] } }],
      app: { bundle: identifier },
      device: { os: 'android' },
    });
    return body.seatbid[0].bid[0].id as string;
  };
  const reward = (ad: string) => http(`${partner.url}/${network}/serve/track/${ad}/reward`, 'GET');

  it('is signed with the key that was given out, and told once', async () => {
    const { key: secret } = await partner.control('rewards', { network, key, address });
    const ad = await watched();
    expect((await reward(ad)).body).toMatchObject({ counted: true, report: { status: 204 } });
    const [{ body, signature } = { body: '', signature: '' }] = told;
    expect(signature).toBe(
      `sha256=${createHmac('sha256', secret as string)
        .update(body)
        .digest('hex')}`,
    );
    expect(JSON.parse(body)).toMatchObject({ ad, unit, test: false, reward: { amount: 2, item: 'pearl' } });
    expect((await reward(ad)).status).toBe(409);
    expect(told).toHaveLength(1);
  });

  it('is not told where no server is named', async () => {
    expect((await reward(await watched())).body).toEqual({ counted: true, suspended: false });
    expect(told).toEqual([]);
  });

  it('counts at the network although the server fails or is gone', async () => {
    await partner.control('rewards', { network, key, address });
    status = 500;
    expect((await reward(await watched())).body.report).toEqual({ status: 500 });
    await partner.control('rewards', { network, key, address: 'http://127.0.0.1:9/' });
    expect((await reward(await watched())).body.report.failed).toBeTruthy();
  });

  it('goes to this machine only', async () => {
    await expect(
      partner.control('rewards', { network, key, address: 'http://elsewhere.example/' }),
    ).rejects.toThrow();
  });
});
