import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { http, putPublisher, testService, type TestService } from '../support/service.js';
import { root } from '../support/trees.js';

let service: TestService;
beforeEach(async () => {
  service = await testService();
});
afterEach(() => service.stop());

const api = (path: string) => `${service.url}/api/v1${path}`;
const kelp = {
  id: 'kelp',
  title: {
    name: 'Kelp',
    editions: { android: { identifier: 'example.brine.kelp' }, ios: { identifier: 'example.brine.kelp' } },
  },
};
const add = () => http(api('/titles'), 'POST', kelp);
const setId = (value: string | null, etag: string, more: object = {}) =>
  http(
    api('/titles/kelp/ids'),
    'PUT',
    { network: 'cobalt-heron', platform: 'android', stage: 'production', value, ...more },
    { 'If-Match': etag },
  );

describe('titles', () => {
  it('are added, shown, changed and taken out, each with its version', async () => {
    const added = await add();
    expect([added.status, added.headers.etag, added.body.version]).toEqual([201, '"v1"', 1]);
    expect((await add()).body).toMatchObject({ code: 'exists', status: 409 });
    const changed = await http(api('/titles/kelp'), 'PATCH', { name: 'Kelp Two' }, { 'If-Match': '"v1"' });
    expect([changed.status, changed.headers.etag, changed.body.title.name]).toEqual([
      200,
      '"v2"',
      'Kelp Two',
    ]);
    expect((await http(api('/titles'))).body).toMatchObject([
      { id: 'kelp', name: 'Kelp Two', platforms: ['android', 'ios'] },
    ]);
    expect((await http(api('/titles/kelp'), 'DELETE', undefined, { 'If-Match': '"v2"' })).status).toBe(200);
    expect((await http(api('/titles/kelp'))).status).toBe(404);
  });

  it('are written only by those who saw what they change', async () => {
    await add();
    expect((await http(api('/titles/kelp'), 'PATCH', { name: 'X' })).body).toMatchObject({
      code: 'precondition-missing',
      status: 428,
    });
    expect(
      (await http(api('/titles/kelp'), 'PATCH', { name: 'X' }, { 'If-Match': '"v9"' })).body,
    ).toMatchObject({ code: 'changed', status: 412 });
    expect((await http(api('/titles/kelp'))).body.title.name).toBe('Kelp');
  });

  it('two writers at once: one wins, the other is told, nothing is lost', async () => {
    await add();
    const writes = await Promise.all(
      ['A', 'B', 'C', 'D'].map((name) =>
        http(api('/titles/kelp'), 'PATCH', { name }, { 'If-Match': '"v1"', 'Syndexa-Who': name }),
      ),
    );
    expect(writes.map(({ status }) => status).sort()).toEqual([200, 412, 412, 412]);
    const winner = writes.find(({ status }) => status === 200)!.body.title.name;
    const history = (await http(api('/titles/kelp/history'))).body;
    expect(history.filter(({ path }: { path: string }) => path === 'titles.kelp.name')).toMatchObject([
      { was: 'Kelp', is: winner, who: winner },
    ]);
  });
});

describe('IDs', () => {
  it('are set, kept through restarts of the store, and taken out', async () => {
    await add();
    const set = await setId('CH-A-204418-7KQ2M9TD', '"v1"');
    expect(set.body.title.networks).toEqual({
      'cobalt-heron': { android: { production: { app: 'CH-A-204418-7KQ2M9TD' } } },
    });
    const again = await testService({ home: service.home });
    expect((await http(`${again.url}/api/v1/titles/kelp`)).body.title.networks).toEqual(
      set.body.title.networks,
    );
    await again.close();
    expect((await setId(null, '"v2"')).body.title.networks['cobalt-heron'].android).toEqual({});
  });

  it.each([
    [
      'a stray blank',
      'CH-A-204418-7KQ2M9TD ',
      {},
      'networks.cobalt-heron.android.production.app',
      /white space/,
    ],
    [
      'the other platform’s',
      'CH-I-204418-X5R8W3HB',
      {},
      'networks.cobalt-heron.android.production.app',
      /is an iOS ID/,
    ],
    [
      'a unit as an app ID',
      'CH-U-204418-P4N7C2VJ',
      {},
      'networks.cobalt-heron.android.production.app',
      /is a unit ID/,
    ],
    [
      'for a placement that is not there',
      'CH-U-204418-P4N7C2VJ',
      { placement: 'nowhere' },
      'placement',
      /no placement nowhere/,
    ],
    ['of an unknown network', 'x', { network: 'nowhere' }, 'networks.nowhere', /no profile/],
  ])('are refused with the field and what would be right: %s', async (_, value, more, field, message) => {
    await add();
    const { status, body } = await setId(value, '"v1"', more);
    expect(status).toBe(422);
    expect(body.errors[0]).toMatchObject({
      field,
      message: expect.stringMatching(message),
      fix: expect.any(String),
    });
    expect((await http(api('/titles/kelp'))).body.version).toBe(1);
  });

  it('that another title holds are refused', async () => {
    await add();
    await http(api('/titles'), 'POST', {
      id: 'frond',
      title: { name: 'Frond', editions: { android: { identifier: 'example.brine.frond' } } },
    });
    await setId('CH-A-204418-7KQ2M9TD', '"v1"');
    const { body } = await http(
      api('/titles/frond/ids'),
      'PUT',
      { network: 'cobalt-heron', platform: 'android', stage: 'production', value: 'CH-A-204418-7KQ2M9TD' },
      { 'If-Match': '"v1"' },
    );
    expect(body.errors[0].message).toContain('already held by title kelp, the app ID');
  });
});

describe('placements', () => {
  const banner = {
    format: 'banner',
    settings: {},
    units: { 'cobalt-heron': { android: { production: 'CH-U-204418-P4N7C2VJ' } } },
  };
  const put = (name: string, body: unknown, headers: Record<string, string>) =>
    http(api(`/titles/kelp/placements/${name}`), 'PUT', body, headers);

  it('have versions of their own', async () => {
    await add();
    expect((await put('footer', banner, { 'If-None-Match': '*' })).headers.etag).toBe('"v1"');
    expect((await put('header', { ...banner, units: {} }, { 'If-None-Match': '*' })).status).toBe(201);
    expect((await put('footer', { ...banner, where: 'below' }, { 'If-Match': '"v1"' })).headers.etag).toBe(
      '"v2"',
    );
    const { placementVersions } = (await http(api('/titles/kelp'))).body;
    expect(placementVersions).toEqual({ footer: 2, header: 1 });
    expect((await put('footer', banner, { 'If-Match': '"v1"' })).status).toBe(412);
    expect((await put('footer', banner, { 'If-None-Match': '*' })).status).toBe(412);
    expect((await put('absent', banner, { 'If-Match': '"v1"' })).status).toBe(412);
    expect(
      (await http(api('/titles/kelp/placements/header'), 'DELETE', undefined, { 'If-Match': '"v1"' })).status,
    ).toBe(200);
  });

  it('are refused with a bad name, an unknown format or a clash', async () => {
    await add();
    expect((await put('Bad_Name', banner, { 'If-None-Match': '*' })).body.errors[0].field).toBe('placement');
    expect(
      (await put('footer', { ...banner, format: 'baner' }, { 'If-None-Match': '*' })).body.errors[0],
    ).toMatchObject({ field: 'format', message: expect.stringContaining('banner') });
    await put('footer', banner, { 'If-None-Match': '*' });
    expect((await put('other', banner, { 'If-None-Match': '*' })).body.errors[0].message).toContain(
      'already held by placement footer',
    );
  });
});

describe('the roster document', () => {
  const demo = readFileSync(join(root, 'demo/roster.yaml'), 'utf8');
  const importIt = (document: string, more: object = {}) =>
    http(api('/roster/import'), 'POST', { document, ...more });

  it('is taken in, shown before, and comes back with comments kept', async () => {
    const preview = await importIt(demo, { dryRun: true });
    expect(preview.body).toMatchObject({ applied: false, revision: 0 });
    expect((await http(api('/titles'))).body).toEqual([]);
    expect((await importIt(demo)).body.applied).toBe(true);
    expect((await importIt(demo)).body.changes).toEqual([]);
    const { body } = await http(api('/roster/document'), 'POST', { document: demo });
    expect(body.document).toContain("# Test IDs come from the networks' samples unless one is given here.");
    expect((await importIt(body.document)).body.changes).toEqual([]);
  });

  it('that is stale is refused with the three-way difference', async () => {
    await importIt(demo);
    const { document } = (await http(api('/roster'))).body;
    const { version } = (await http(api('/titles/tidewick'))).body;
    await http(api('/titles/tidewick'), 'PATCH', { name: 'Tidewick Four' }, { 'If-Match': `"v${version}"` });
    const { status, body } = await importIt(
      document
        .replace('name: Tidewick', 'name: Tidewick Five')
        .replace('audience: general', 'audience: mixed'),
    );
    expect([status, body.code]).toEqual([409, 'stale']);
    expect(body.changes).toEqual([
      {
        path: 'titles.tidewick.audience',
        base: 'general',
        record: 'general',
        document: 'mixed',
        conflict: false,
      },
      {
        path: 'titles.tidewick.name',
        base: 'Tidewick',
        record: 'Tidewick Four',
        document: 'Tidewick Five',
        conflict: true,
      },
    ]);
    expect((await importIt('syndexa: 1\nrevision: 9999\ntitles: {}\n', { prune: true })).body.code).toBe(
      'stale',
    );
  });

  it('that is wrong changes nothing, and names line and column', async () => {
    await importIt(demo);
    const before = (await http(api('/roster'))).body;
    const { status, body } = await importIt(demo.replace('CH-U-204418-P4N7C2VJ', 'CH-A-204418-7KQ2M9TX'));
    expect(status).toBe(422);
    expect(body.errors[0]).toMatchObject({
      field: 'titles.tidewick.placements.tide-list-footer.units.cobalt-heron.android.production',
      place: { line: demo.split('\n').findIndex((text) => text.includes('CH-U-204418-P4N7C2VJ')) + 1 },
    });
    expect((await importIt(demo.replace('syndexa: 1', 'syndexa: 3'))).body.errors[0]).toMatchObject({
      field: 'syndexa',
      place: { line: 2, column: 10 },
    });
    expect((await http(api('/roster'))).body).toEqual(before);
  });

  it('leaves titles alone that it does not name, unless it is told to prune', async () => {
    await add();
    await importIt(demo);
    expect((await http(api('/titles'))).body.map(({ id }: { id: string }) => id)).toEqual([
      'kelp',
      'tidewick',
      'plumebook',
      'kilnlog',
      'kilnlog-expo',
      'orrery-drift',
      'parcelgull',
    ]);
    await importIt(demo, { prune: true });
    expect((await http(api('/titles'))).body.map(({ id }: { id: string }) => id)).toEqual([
      'tidewick',
      'plumebook',
      'kilnlog',
      'kilnlog-expo',
      'orrery-drift',
      'parcelgull',
    ]);
  });

  it('is checked as it will stand: an ID may move to another title, and be in two of them never', async () => {
    const unit = 'CH-U-310772-BBBB1111';
    const title = (name: string, held: boolean) =>
      `  ${name}:\n    name: ${name}\n    stages: { test: [debug], production: [release] }\n    editions: { android: { identifier: example.brine.${name} } }\n    placements:\n      footer:\n        format: banner\n        units: { cobalt-heron: { android: ${held ? `{ production: ${unit} }` : '{}'} } }\n`;
    const both = (one: boolean, other: boolean) =>
      importIt(`syndexa: 1\ntitles:\n${title('frond', one)}${title('blade', other)}`);
    expect((await both(true, false)).status).toBe(200);
    expect((await both(false, true)).status).toBe(200);
    const refused = await both(true, true);
    expect(refused.status).toBe(422);
    expect(refused.body.errors[0].message).toContain('already held by title');
    expect(
      (await http(api('/titles/blade'))).body.title.placements.footer.units['cobalt-heron'].android,
    ).toEqual({
      production: unit,
    });
  });

  it('has a history: who, when, what was, what is', async () => {
    await http(api('/roster/import'), 'POST', { document: demo }, { 'Syndexa-Who': 'mara <script>' });
    const [entry] = (await http(api('/titles/tidewick/history?limit=1'))).body;
    expect(entry).toMatchObject({
      who: 'mara script',
      title: 'tidewick',
      path: 'titles.tidewick',
      was: null,
    });
    expect(Date.parse(entry.at)).toBeGreaterThan(0);
  });
});

describe('the publisher', () => {
  it('is named, and refused with a bad domain', async () => {
    expect((await http(api('/publisher'))).body).toBe(null);
    expect(
      (await putPublisher(api('/publisher'), { name: 'Brine', domain: 'http://brine.example/' })).status,
    ).toBe(422);
    await putPublisher(api('/publisher'), { name: 'Brine', domain: 'brine.example' });
    expect((await http(api('/publisher'))).body).toEqual({ name: 'Brine', domain: 'brine.example' });
  });
});

describe('a change', () => {
  const history = async () =>
    (await http(api('/titles/kelp/history'))).body as { revision: number; path: string }[];
  const revert = (revision: number | string) =>
    http(api(`/titles/kelp/history/${revision}/revert`), 'POST', {});

  it('is taken back: the field is as it was, and the rest stays', async () => {
    await add();
    await http(api('/titles/kelp'), 'PATCH', { name: 'Kelp Two' }, { 'If-Match': '"v1"' });
    await setId('CH-A-310772-AAAA1111', '"v2"');
    const [ofId, ofName] = await history();
    const back = await revert(ofName!.revision);
    expect([back.status, back.headers.etag, back.body.title.name]).toEqual([200, '"v4"', 'Kelp']);
    expect(back.body.title.networks['cobalt-heron'].android.production.app).toBe('CH-A-310772-AAAA1111');
    expect((await revert(ofId!.revision)).body.title.networks).toEqual({});
    // Taking that back in turn brings it again.
    const [latest] = await history();
    expect((await revert(latest!.revision)).body.title.networks['cobalt-heron']).toBeDefined();
  });

  it('that was changed again is left alone, with what is there now', async () => {
    await add();
    await http(api('/titles/kelp'), 'PATCH', { name: 'Kelp Two' }, { 'If-Match': '"v1"' });
    const [first] = await history();
    await http(api('/titles/kelp'), 'PATCH', { name: 'Kelp Three' }, { 'If-Match': '"v2"' });
    const { status, body } = await revert(first!.revision);
    expect([status, body.code]).toEqual([412, 'changed']);
    expect(body.detail).toContain('it is "Kelp Three" now');
  });

  it('is refused where there is none, and where it added the title', async () => {
    await add();
    const [added] = await history();
    expect((await revert(added!.revision)).body.detail).toBe('kelp was added by this change.');
    for (const none of ['99999', '0', '-1', 'x', '1e9', '9'.repeat(30)])
      expect([none, (await revert(none)).status]).toEqual([none, 404]);
  });
});
