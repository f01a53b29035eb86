import fc from 'fast-check';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { Writable } from 'node:stream';
import { pino } from 'pino';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { http, putPublisher } from '../support/service.js';
import { partneredService, plantedKey, type PartneredService } from '../support/partner.js';
import { androidFiles } from '../support/trees.js';

let s: PartneredService;
beforeEach(async () => {
  s = await partneredService();
});
afterEach(() => s.stop());

/** A title with three placements on two networks, and no ID at all. */
async function bareTitle(settings: object = { refresh: '60s', content: ['text', 'image'] }): Promise<void> {
  const title = {
    name: 'Kelp',
    editions: { android: { identifier: 'example.brine.kelp' }, ios: { identifier: 'example.brine.kelp' } },
    placements: {
      footer: { format: 'banner', settings, units: { 'cobalt-heron': {} } },
      bonus: {
        format: 'rewarded',
        settings: { reward: { amount: 3, item: 'coins' } },
        units: { 'cobalt-heron': {}, marlstone: {} },
      },
    },
  };
  expect((await http(s.api('/titles'), 'POST', { id: 'kelp', title })).status).toBe(201);
}
const provision = (body: object = {}) => http(s.api('/titles/kelp/provision'), 'POST', body);
const title = async () => (await http(s.api('/titles/kelp'))).body.title;
const heronUnits = async () =>
  (await s.partner.ask('cobalt-heron', plantedKey, '/units')).body.units as {
    id: string;
    name: string;
    refresh?: string;
  }[];
const counts = async () => {
  const all = [];
  for (const [network, path, items] of [
    ['cobalt-heron', '/apps', 'apps'],
    ['cobalt-heron', '/units', 'units'],
    ['marlstone', '/applications', 'applications'],
    ['marlstone', '/references', 'references'],
  ] as const)
    all.push((await s.partner.ask(network, plantedKey, path)).body[items].length);
  return all;
};

describe('provisioning', () => {
  it('shows what it would create, creates it, and writes the IDs down', async () => {
    await bareTitle();
    const plan = await provision({ dryRun: true });
    expect(plan.body.applied).toBe(false);
    expect(await counts()).toEqual([0, 0, 0, 0]);
    expect(
      plan.body.networks.map(({ network, steps }: any) => [
        network,
        steps.map((step: any) => `${step.do} ${step.name ?? ''}`.trim()),
      ]),
    ).toEqual([
      [
        'cobalt-heron',
        [
          'create-app Kelp',
          'by-hand',
          'create-unit kelp_footer_banner_android',
          'create-unit kelp_bonus_rewarded_android',
          'create-app Kelp',
          'by-hand',
          'create-unit kelp_footer_banner_ios',
          'create-unit kelp_bonus_rewarded_ios',
        ],
      ],
      [
        'marlstone',
        [
          'create-app Kelp',
          'by-hand',
          'create-unit kelp_bonus_rewarded_android',
          'create-app Kelp',
          'by-hand',
          'create-unit kelp_bonus_rewarded_ios',
        ],
      ],
    ]);
    const done = await provision({ plan: plan.body.plan });
    expect(done.body.applied).toBe(true);
    expect(done.body.done).toHaveLength(10);
    expect(await counts()).toEqual([2, 4, 2, 2]);
    const { networks, placements } = await title();
    expect(networks['cobalt-heron'].android.production.app).toMatch(/^CH-A-/);
    expect(networks['cobalt-heron'].ios.production.app).toMatch(/^CH-I-/);
    expect(networks.marlstone.ios.production.app).toMatch(/^mrl1-/);
    expect(Object.keys(placements.bonus.units).sort()).toEqual(['cobalt-heron', 'marlstone']);
    expect((await heronUnits()).find(({ name }) => name === 'kelp_footer_banner_android')).toMatchObject({
      id: placements.footer.units['cobalt-heron'].android.production,
      refresh: '60s',
    });
    const history = (await http(s.api('/titles/kelp/history'))).body;
    expect(history.length).toBeGreaterThanOrEqual(10);
  });

  it('is empty the second time', async () => {
    await bareTitle();
    await provision();
    const before = await title();
    const again = await provision();
    expect(again.body.done).toEqual([]);
    expect(await counts()).toEqual([2, 4, 2, 2]);
    expect(await title()).toEqual(before);
  });

  it('refuses a plan that is another one by now', async () => {
    await bareTitle();
    const { body } = await provision({ dryRun: true });
    await s.partner.ask('cobalt-heron', plantedKey, '/apps', 'POST', {
      platform: 'android',
      identifier: 'example.brine.kelp',
      name: 'Kelp',
      audience: 'general',
    });
    const refused = await provision({ plan: body.plan });
    expect([refused.status, refused.body.code]).toEqual([409, 'stale']);
    expect(await counts()).toEqual([1, 0, 0, 0]);
  });

  it('takes over what is there already, by identifier and by name', async () => {
    await bareTitle();
    await provision();
    const first = await title();
    for (const placement of ['footer', 'bonus']) {
      const { body, headers } = await http(s.api('/titles/kelp'));
      const emptied = {
        ...body.title.placements[placement],
        units: { 'cobalt-heron': {}, ...(placement === 'bonus' ? { marlstone: {} } : {}) },
      };
      await http(s.api(`/titles/kelp/placements/${placement}`), 'PUT', emptied, {
        'If-Match': `"v${body.placementVersions[placement]}"`,
      });
      expect(headers.etag).toBeDefined();
    }
    const { body } = await provision();
    expect(new Set(body.done.map(({ what }: any) => what))).toEqual(new Set(['unit taken over']));
    expect((await title()).placements).toEqual(first.placements);
    expect(await counts()).toEqual([2, 4, 2, 2]);
  });

  it('goes on where it was cut, and creates nothing twice, whatever befalls the network', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.constantFrom('error', 'cut', 'html', 'empty'), { minLength: 1, maxLength: 4 }),
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 1, max: 3 }),
        async (kinds, every, tries) => {
          await s.stop();
          s = await partneredService(undefined, {
            service: { partnerLimits: { timeout: 300, tries, pause: 1 } },
          });
          await bareTitle();
          for (const network of ['cobalt-heron', 'marlstone'])
            await s.partner.control('faults', { network, kinds, every, times: 10 });
          let status = 0;
          for (let run = 0; run < 60; run++) {
            const last = await provision();
            status = last.status;
            if (status === 200) break;
            expect(last.body.code).toMatch(/^partner-(unreachable|odd)$/);
            expect(last.body.fix.length).toBeGreaterThan(10);
          }
          expect(status).toBe(200);
          for (const network of ['cobalt-heron', 'marlstone'])
            await s.partner.control('faults', { network, kinds: [] });
          expect(await counts()).toEqual([2, 4, 2, 2]);
          const { placements } = await title();
          const ids = Object.values(placements).flatMap(({ units }: any) =>
            Object.values(units).flatMap((of: any) =>
              Object.values(of).map((stage: any) => stage.production),
            ),
          );
          expect(new Set(ids).size).toBe(6);
          expect(ids.every(Boolean)).toBe(true);
        },
      ),
      { numRuns: 8, endOnFailure: true },
    );
  }, 120_000);

  it('gives up on a network that never answers, and says so', async () => {
    await s.stop();
    s = await partneredService(['cobalt-heron'], {
      service: { partnerLimits: { timeout: 60, tries: 2, pause: 1 } },
    });
    await bareTitle();
    await s.partner.control('faults', { network: 'cobalt-heron', kinds: ['timeout'], every: 1 });
    const { status, body } = await provision({ networks: ['cobalt-heron'] });
    expect([status, body.code, body.detail]).toEqual([
      502,
      'partner-unreachable',
      'Cobalt Heron was asked 2 times: no answer within 0.06 s.',
    ]);
    expect((await title()).networks).toEqual({});
  });

  it('waits as long as a network asks it to', async () => {
    await s.stop();
    s = await partneredService(['cobalt-heron'], { partner: { rate: { limit: 3, seconds: 1 } } });
    await bareTitle();
    const { body } = await provision({ networks: ['cobalt-heron'], platforms: ['android'] });
    expect(body.done).toHaveLength(3);
  });

  it('shows settings that differ, and settles them either way', async () => {
    await bareTitle();
    await provision();
    const [footer] = (await heronUnits()).filter(({ name }) => name === 'kelp_footer_banner_android');
    await s.partner.ask('cobalt-heron', plantedKey, `/units/${footer!.id}`, 'PATCH', { refresh: '90s' });
    const settled = async (settle?: string) => {
      const { body } = await provision({ networks: ['cobalt-heron'], ...(settle ? { settle } : {}) });
      return body.networks[0].steps
        .filter(({ do: what }: any) => what === 'settle')
        .map(({ setting, roster, partner }: any) => [setting, roster, partner]);
    };
    expect(await settled()).toEqual([['refresh', '60s', '90s']]);
    expect((await title()).placements.footer.settings.refresh).toBe('60s');
    await settled('roster');
    expect((await heronUnits()).map(({ refresh }) => refresh).filter(Boolean)).toEqual(['60s', '60s']);
    expect(await settled()).toEqual([]);
    for (const { id, refresh } of await heronUnits())
      if (refresh)
        await s.partner.ask('cobalt-heron', plantedKey, `/units/${id}`, 'PATCH', { refresh: '90s' });
    await settled('partner');
    expect((await title()).placements.footer.settings.refresh).toBe('90s');
    expect(await settled()).toEqual([]);
  });

  it.each<[string, object, number, string]>([
    ['a pattern that tells nothing apart', { names: '{title}' }, 422, 'It lacks {placement}'],
    ['a network that the title does not use', { networks: ['ferrowick'] }, 422, 'does not use Ferrowick'],
    ['a network that nobody knows', { networks: ['nowhere'] }, 404, 'no profile of the network nowhere'],
  ])('refuses %s', async (_, body, status, detail) => {
    await bareTitle();
    const answer = await provision(body);
    expect([answer.status, answer.body.detail]).toEqual([status, expect.stringContaining(detail)]);
  });

  it('leaves to a person what it must not touch', async () => {
    await bareTitle();
    await s.partner.account('cobalt-heron', 'another-key-entirely', '999999');
    await s.partner.ask('cobalt-heron', 'another-key-entirely', '/apps', 'POST', {
      platform: 'android',
      identifier: 'example.brine.kelp',
      name: 'Kelp',
      audience: 'general',
    });
    const held = await provision({ networks: ['cobalt-heron'], platforms: ['android'] });
    expect([held.status, held.body.code, held.body.detail]).toEqual([
      502,
      'partner-refused',
      'Cobalt Heron refuses it: Another account holds example.brine.kelp on android.',
    ]);
    const { headers } = await http(s.api('/titles/kelp'));
    await http(
      s.api('/titles/kelp/ids'),
      'PUT',
      {
        network: 'cobalt-heron',
        platform: 'ios',
        stage: 'production',
        placement: null,
        value: 'CH-I-310772-M6R9V3XC',
      },
      { 'If-Match': String(headers.etag) },
    );
    const unknown = await provision({ networks: ['cobalt-heron'], platforms: ['ios'], dryRun: true });
    expect(unknown.body.networks[0].steps[0]).toMatchObject({
      do: 'by-hand',
      what: expect.stringContaining('does not know CH-I-310772-M6R9V3XC'),
    });
  });
});

describe('secrets', () => {
  it('turn up nowhere: not in the record, the logs, the snapshots or the answers', async () => {
    await s.stop();
    let logged = '';
    const log = pino(
      { level: 'trace' },
      new Writable({ write: (chunk, _encoding, done) => ((logged += String(chunk)), done()) }),
    );
    s = await partneredService(undefined, {
      service: { log, partnerLimits: { timeout: 300, tries: 2, pause: 1 } },
    });
    await bareTitle();
    const said: string[] = [];
    const ask = async (path: string, method = 'GET', body?: unknown) =>
      said.push((await http(s.api(path), method, body)).text);
    await ask('/titles/kelp/provision', 'POST', {});
    await s.partner.control('faults', {
      network: 'cobalt-heron',
      kinds: ['error', 'html', 'cut', 'empty'],
      every: 1,
    });
    await ask('/titles/kelp/provision', 'POST', {});
    await ask('/titles/kelp/collect', 'POST', { network: 'cobalt-heron' });
    await s.partner.control('reset', {});
    await ask('/titles/kelp/collect', 'POST', { network: 'marlstone' });
    for (const path of [
      '/secrets',
      '/publisher',
      '/roster',
      '/titles/kelp',
      '/titles/kelp/steps',
      '/titles/kelp/history',
      '/networks/cobalt-heron/inventory',
    ])
      await ask(path);
    const files = androidFiles();
    const { createHash } = await import('node:crypto');
    const entries = Object.entries(files).map(([path, text]) => ({
      path,
      size: text.length,
      hash: createHash('sha256').update(text).digest('hex'),
    }));
    const snapshot = await http(s.api('/snapshots'), 'POST', {
      name: 'kelp',
      files: entries,
      folders: [],
      skipped: [],
    });
    said.push(snapshot.text);
    expect(said.join('')).toContain('secret:PLANTED');
    expect(said.find((text) => text.includes('partner-refused'))).toContain('does not take secret:PLANTED (');
    expect(said.join('')).not.toContain(plantedKey);
    expect(logged).not.toContain(plantedKey);
    const below = (folder: string): string[] =>
      readdirSync(folder).flatMap((name) =>
        statSync(join(folder, name)).isDirectory() ? below(join(folder, name)) : [join(folder, name)],
      );
    for (const file of below(s.home))
      expect([file, readFileSync(file).includes(plantedKey)]).toEqual([file, false]);
  });

  it('are named, never given', async () => {
    await bareTitle();
    const wrong = await putPublisher(s.api('/publisher'), {
      name: 'Brine',
      domain: 'brine.example',
      credentials: { 'cobalt-heron': { inventory: plantedKey } },
    });
    expect([wrong.status, wrong.text.includes(plantedKey)]).toEqual([422, false]);
    const { headers } = await http(s.api('/titles/kelp'));
    const push = (value: string) =>
      http(
        s.api('/titles/kelp/ids'),
        'PUT',
        { network: 'ferrowick', platform: 'android', stage: 'production', credential: 'push', value },
        { 'If-Match': String(headers.etag) },
      );
    expect((await push(plantedKey)).text).not.toContain(plantedKey);
    expect((await push('secret:PUSH')).body.title.networks.ferrowick.android.production.credentials).toEqual({
      push: 'secret:PUSH',
    });
    expect((await http(s.api('/secrets'))).body).toContainEqual({
      name: 'PUSH',
      from: 'nowhere',
      fingerprint: null,
      usedBy: ['kelp: ferrowick.push (Android, production)'],
      hosts: [],
    });
  });

  it.each<[string, object, string]>([
    [
      'a network that nobody knows',
      { nowhere: { inventory: 'secret:X1' } },
      'no profile of the network nowhere',
    ],
    [
      'a credential that the network does not have',
      { 'cobalt-heron': { door: 'secret:X1' } },
      'has no credential door',
    ],
    ['a credential of an edition', { ferrowick: { push: 'secret:X1' } }, 'is one per edition'],
  ])('of %s are refused', async (_, credentials, message) => {
    const answer = await putPublisher(s.api('/publisher'), {
      name: 'Brine',
      domain: 'brine.example',
      credentials,
    });
    expect([answer.status, answer.body.errors[0].message]).toEqual([422, expect.stringContaining(message)]);
  });

  it('that are missing say where to put them', async () => {
    await bareTitle();
    await putPublisher(s.api('/publisher'), {
      name: 'Brine',
      domain: 'brine.example',
      credentials: { 'cobalt-heron': { inventory: 'secret:NOT_THERE' } },
    });
    const answer = await provision({ networks: ['cobalt-heron'] });
    expect([answer.status, answer.body.code, answer.body.fix]).toEqual([
      422,
      'secret-missing',
      expect.stringContaining('SYNDEXA_SECRET_NOT_THERE'),
    ]);
    await putPublisher(s.api('/publisher'), { name: 'Brine', domain: 'brine.example' });
    expect((await provision({ networks: ['cobalt-heron'] })).body.fix).toContain(
      'publisher set --credential cobalt-heron.inventory=secret:NAME',
    );
  });
});
