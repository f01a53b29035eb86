import { createServer, type RequestListener } from 'node:http';
import type { AddressInfo } from 'node:net';
import { chmodSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { hostText, parseHost, SecretHosts } from '../../src/disk/home/secret-hosts.js';
import { faultOfSecret } from '../../src/disk/home/secrets-file.js';
import { ask, isNamed, isPrivateAddress, PrivateAddressError } from '../../src/api/outgoing.js';
import { SecretCleaner } from '../../src/service/secret-cleaner.js';
import { Secrets } from '../../src/service/secrets.js';
import { approve, http, putPublisher, temporaryFolder, testService } from '../support/service.js';
import { profiles } from '../support/trees.js';

describe('taking secrets out of text', () => {
  const value = fc
    .string({
      unit: fc.constantFrom(...Array.from('abzAZ09-_.~+/=:"\\ $^*?{}[]()|<>&%#')),
      minLength: 6,
      maxLength: 40,
    })
    .filter((text) => text.trim() === text);
  const noise = fc.string({ maxLength: 7 });

  it('finds them raw, percent-encoded, as JSON, and inside base64', () => {
    fc.assert(
      fc.property(value, noise, noise, (secret, before, after) => {
        const { clean } = {
          clean: (text: string) => new SecretCleaner(new Map([['KEY', secret]])).clean(text),
        };
        const whole = `${before}${secret}${after}`;
        const percent = [...Buffer.from(secret)]
          .map((byte) => `%${byte.toString(16).padStart(2, '0')}`)
          .join('');
        for (const text of [
          whole,
          JSON.stringify(whole),
          encodeURIComponent(secret),
          new URLSearchParams({ k: secret }).toString(),
          percent,
          percent.toUpperCase(),
        ]) {
          const cleaned = clean(text);
          expect(cleaned).toContain('[secret KEY]');
          expect(cleaned).not.toContain(secret);
        }
        for (const alphabet of ['base64', 'base64url'] as const) {
          const cleaned = clean(Buffer.from(`${before}${secret}${after}`).toString(alphabet));
          expect(Buffer.from(cleaned, alphabet).toString()).not.toContain(secret);
        }
      }),
      { numRuns: 400 },
    );
  });

  it('leaves all else alone, and takes the longer of two that overlap', () => {
    const cleaner = new SecretCleaner(
      new Map([
        ['SHORT', 'abcd'],
        ['LONG', 'abcd-efgh'],
        ['TINY', 'abc'],
      ]),
    );
    expect(cleaner.clean('abcd-efgh, abcd, abc, ab')).toBe('[secret LONG], [secret SHORT], abc, ab');
  });
});

describe('a secret that is set', () => {
  it.each(['', 'a\nb', 'a\r', '\u0000x', 'naïve', 'tab\tbed', ' leading', 'trailing ', 'x\u007f'])(
    'is refused as %j',
    (value) => expect(faultOfSecret(value)).toBeDefined(),
  );
  it.each(['key-1', 'Ab/+=_~', 'two words', '!'])('is taken as %j', (value) =>
    expect(faultOfSecret(value)).toBeUndefined(),
  );
});

describe('the file of secrets', () => {
  it.each([
    [0o600, true],
    [0o400, true],
    [0o640, false],
    [0o620, false],
    [0o610, false],
    [0o604, false],
    [0o602, false],
  ])('is used by mode %o: %s', (mode, isUsed) => {
    const home = temporaryFolder();
    const path = join(home, 'secrets');
    writeFileSync(path, ' # of Brine\nHERON_KEY = one two \nlower=x\nEMPTY=\n');
    chmodSync(path, mode);
    const secrets = new Secrets(home, { SYNDEXA_SECRET_OTHER: 'from outside', SYNDEXA_SECRET_BLANK: '' });
    if (isUsed) {
      expect(secrets.get('secret:HERON_KEY').reveal()).toBe('one two');
      expect(['EMPTY', 'lower', 'BLANK'].map((name) => secrets.find(name))).toEqual([
        undefined,
        undefined,
        undefined,
      ]);
      expect(secrets.cleaner()('one two, from outside')).toBe('[secret HERON_KEY], [secret OTHER]');
    } else {
      expect(() => secrets.get('secret:HERON_KEY')).toThrow(
        expect.objectContaining({
          code: 'secret-missing',
          message: `${path} can be read by others (mode ${mode.toString(8)}), so it is not used.`,
          fix: `chmod 600 ${path}`,
        }),
      );
      expect(secrets.cleaner()('one two, from outside')).toBe('one two, [secret OTHER]');
    }
    expect(secrets.find('secret:OTHER')).toMatchObject({ name: 'OTHER', from: 'environment' });
    rmSync(home, { recursive: true });
  });
});

describe('hosts that a secret may go to', () => {
  it.each([
    ['api.marlstone.example', 'https://api.marlstone.example/v1', true],
    ['api.marlstone.example', 'https://API.marlstone.example', true],
    ['api.marlstone.example', 'http://api.marlstone.example', false],
    ['api.marlstone.example', 'https://api.marlstone.example:8443', false],
    ['api.marlstone.example:8443', 'https://api.marlstone.example:8443', true],
    ['api.marlstone.example:80', 'http://api.marlstone.example', true],
    ['api.marlstone.example', 'https://api.marlstone.example.evil.example', false],
    ['marlstone.example', 'https://api.marlstone.example', false],
    ['127.0.0.1:4871', 'http://127.0.0.1:4871/marlstone', true],
    ['127.0.0.1:4871', 'http://127.1:4871', true],
    ['127.0.0.1:4871', 'http://localhost:4871', false],
    ['[::1]:80', 'http://[::1]/', true],
  ])('%s lets it go to %s: %s', (host, url, may) => {
    expect(isNamed(new URL(url), [parseHost(host)!])).toBe(may);
  });

  it.each([
    '',
    'https://x.example',
    'x.example/path',
    'x.example:0',
    'x.example:70000',
    'a b',
    '*.example',
    'x@y',
  ])('are no %j', (text) => expect(parseHost(text)).toBeUndefined());

  it('stand in a file that only its owner reads', () => {
    const home = temporaryFolder();
    const hosts = new SecretHosts(home);
    hosts.allow({ secret: 'ONE', host: 'a.example', port: null });
    hosts.allow({ secret: 'ONE', host: 'a.example', port: 8443 });
    hosts.allow({ secret: 'TWO', host: 'b.example', port: null });
    hosts.allow({ secret: 'ONE', host: 'a.example', port: null });
    writeFileSync(
      join(home, 'secret-hosts'),
      `${readFileSync(join(home, 'secret-hosts'), 'utf8')}ONE not a host\n`,
    );
    expect(new SecretHosts(home).of('ONE').map(hostText)).toEqual(['a.example:8443', 'a.example']);
    expect(hosts.disallow({ secret: 'ONE', host: 'a.example', port: null })).toBe(true);
    expect(hosts.disallow({ secret: 'ONE', host: 'a.example', port: null })).toBe(false);
    expect(statSync(join(home, 'secret-hosts')).mode & 0o777).toBe(0o600);
    rmSync(home, { recursive: true });
  });
});

describe('addresses inside', () => {
  it.each([
    ...[
      '127.0.0.1',
      '127.9.9.9',
      '10.1.2.3',
      '172.16.0.1',
      '172.31.255.255',
      '192.168.1.1',
      '169.254.169.254',
    ],
    ...[
      '100.64.0.1',
      '0.0.0.0',
      '224.0.0.1',
      '255.255.255.255',
      '::1',
      '::',
      'fe80::1',
      'fd00::1',
      'ff02::1',
    ],
    ...[
      '::ffff:127.0.0.1',
      '::ffff:7f00:1',
      '::ffff:10.0.0.1',
      '64:ff9b::7f00:1',
      '::127.0.0.1',
      'no address',
    ],
  ])('%s is private', (address) => expect(isPrivateAddress(address)).toBe(true));
  it.each(['8.8.8.8', '172.32.0.1', '192.169.0.1', '2606:4700::1', '::ffff:8.8.8.8', '::ffff:808:808'])(
    '%s is not',
    (address) => expect(isPrivateAddress(address)).toBe(false),
  );

  it.each([
    'http://127.0.0.1:1/',
    'http://[::1]:1/',
    'http://localhost:1/',
    'http://[::ffff:127.0.0.1]:1/',
    'http://2130706433:1/',
  ])('%s is not asked unless it is named with its port', async (url) => {
    const question = { method: 'GET', url, headers: {}, timeout: 2_000, maxBytes: 1_000 };
    await expect(ask({ ...question, named: [] })).rejects.toThrow(PrivateAddressError);
    const host = new URL(url).hostname;
    await expect(ask({ ...question, named: [{ host, port: null }] })).rejects.toThrow(PrivateAddressError);
    await expect(ask({ ...question, named: [{ host, port: 1 }] })).rejects.toThrow(/ECONNREFUSED/);
  });
});

describe('a key of a network', () => {
  const key = 'planted/key+4f"9a';
  let home: string;
  const asked: string[] = [];
  const open: { close: () => void }[] = [];
  beforeEach(() => {
    home = temporaryFolder();
    asked.length = 0;
  });
  afterEach(() => {
    for (const server of open.splice(0)) server.close();
    rmSync(home, { recursive: true, force: true });
  });

  const listening = async (listener: RequestListener) => {
    const server = createServer((request, response) => {
      asked.push(JSON.stringify(request.headers));
      listener(request, response);
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    open.push(server);
    return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  };
  const started = async (partners: string) => {
    const service = await testService({
      home,
      env: { SYNDEXA_PARTNERS: partners, SYNDEXA_SECRET_PLANTED: key },
      partnerLimits: { timeout: 1_000, tries: 2, pause: 1 },
    });
    const api = (path: string) => `${service.url}/api/v1${path}`;
    const credentials = { 'cobalt-heron': { inventory: 'secret:PLANTED' } };
    await putPublisher(api('/publisher'), { name: 'Brine', domain: 'brine.example', credentials });
    await http(api('/titles'), 'POST', {
      id: 'kelp',
      title: { name: 'Kelp', editions: { android: { identifier: 'example.brine.kelp' } } },
    });
    const collect = () => http(api('/titles/kelp/collect'), 'POST', { network: 'cobalt-heron' });
    return { service, api, collect };
  };
  const silent: RequestListener = (_, response) => response.end('{}');

  it('goes nowhere until the owner approved the host', async () => {
    const address = await listening(silent);
    const { service, collect } = await started(address);
    const { status, body } = await collect();
    expect([status, body.code, asked]).toEqual([403, 'host-not-approved', []]);
    expect(body.fix).toContain(`syndexa secret allow PLANTED --host ${new URL(address).host}`);
    approve(home, 'PLANTED', address);
    await collect();
    expect(asked.length).toBeGreaterThan(0);
    await service.close();
  });

  it('is not redirected by a profile that is changed over HTTP', async () => {
    const [ours, theirs] = [await listening(silent), await listening(silent)];
    approve(home, 'PLANTED', ours);
    const { service, api, collect } = await started('');
    const shipped = profiles.find(({ id }) => id === 'cobalt-heron')!;
    const source = (await http(api('/networks/cobalt-heron'))).body.source as string;
    const usual = shipped.inventory!.http!.address;
    const swapped = source.replaceAll(usual, theirs);
    expect(swapped).toContain(theirs);
    const kept = await http(api('/networks'), 'POST', { text: swapped });
    expect(kept.status).toBeLessThan(300);
    const { body } = await collect();
    expect([body.code, asked]).toEqual(['host-not-approved', []]);
    await service.close();
  });

  it('does not follow a network that sends on to another place', async () => {
    const theirs = await listening(silent);
    const ours = await listening((_, response) => response.writeHead(302, { Location: theirs }).end());
    approve(home, 'PLANTED', ours);
    approve(home, 'PLANTED', theirs);
    const { service, collect } = await started(ours);
    expect((await collect()).body.detail).toContain('it redirects to another address (302)');
    expect(asked).toHaveLength(1);
    await service.close();
  });

  it.each<[string, (text: string) => string, number]>([
    ['as it is', (text) => text, 400],
    ['in a page', (text) => `<html>${text}</html>`, 200],
    ['in base64', (text) => Buffer.from(text).toString('base64'), 400],
    ['percent-encoded', encodeURIComponent, 400],
    ['in the list itself', (text) => text, 200],
  ])('is taken out of what a network answers: %s', async (_, form, status) => {
    const ours = await listening((_, response) => {
      response.writeHead(status, { 'Content-Type': 'application/json' });
      const message = `your key ${form(key)} is wrong`;
      const units = [{ id: message, name: message }];
      response.end(JSON.stringify({ error: { message, field: message }, units, apps: units, total: 1 }));
    });
    approve(home, 'PLANTED', ours);
    const { service, api, collect } = await started(ours);
    const answers = [
      await collect(),
      await http(api('/networks/cobalt-heron/inventory')),
      await http(api('/secrets')),
    ];
    for (const { text } of answers)
      for (const shape of [
        key,
        JSON.stringify(key).slice(1, -1),
        encodeURIComponent(key),
        Buffer.from(key).toString('base64'),
      ])
        expect(text).not.toContain(shape);
    expect(asked.length).toBeGreaterThan(0);
    await service.close();
  });
});
