import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { App } from '../../../src/core/rehearsal/app/model.js';
import { bidRequest, deviceIds, readBids, readTag } from '../../../src/core/rehearsal/messages.js';
import { BidRequest } from '../../../src/core/standards/openrtb.js';
import { writeVast } from '../../../src/core/standards/vast.js';
import { formatNames } from '../../../src/core/words/names.js';
import type { Format } from '../../../src/core/words/words.js';
import { root } from '../../support/trees.js';

const schemas = new Ajv2020({ strict: false, validateFormats: false });
schemas.addSchema(
  JSON.parse(readFileSync(join(root, 'tests/fixtures/openrtb-2.6.schema.json'), 'utf8')) as object,
  'openrtb',
);
const asked = formatNames.filter(
  (format): format is Exclude<Format, 'notification'> => format !== 'notification',
);

const app: App = {
  title: 'kelp',
  platform: 'android',
  module: ':app',
  variant: 'debug',
  stage: 'test',
  identifier: 'example.brine.kelp',
  recreatesOnTurn: true,
  networks: [],
  screens: [],
  slots: [],
};
const question = {
  asks: 'ad',
  network: 'cobalt-heron',
  placement: 'page',
  unit: 'CH-U-100001-BANNER0A',
  appId: 'CH-A-100001-SAMPLE0A',
  isChild: false,
  isTracked: true,
  isRegistered: false,
  at: 0,
} as const;

describe('requests for ads', () => {
  it.each(asked)('of the format %s are valid OpenRTB 2.6', (format) => {
    for (const isChild of [true, false])
      for (const isTracked of [true, false])
        for (const appId of [null, question.appId]) {
          const request = bidRequest(app, { ...question, format, isChild, isTracked, appId }, 'r1');
          const validate = schemas.getSchema('openrtb#/$defs/request');
          expect([validate?.(request), validate?.errors]).toEqual([true, null]);
          expect(BidRequest.safeParse(request).success).toBe(true);
          const [{ native } = {}] = request.imp as { native?: { request: string } }[];
          const isNative = schemas.getSchema('openrtb#/$defs/nativerequest');
          if (native)
            expect([isNative?.(JSON.parse(native.request)), isNative?.errors]).toEqual([true, null]);
        }
  });

  it('tell the device only where the user allows it, or the build registered it', () => {
    const ifa = (isTracked: boolean, isRegistered: boolean) =>
      bidRequest(app, { ...question, format: 'banner', isTracked, isRegistered }, 'r1').device.ifa;
    expect(ifa(true, false)).toBe(deviceIds.other);
    expect(ifa(false, false)).toBeUndefined();
    expect(ifa(false, true)).toBe(deviceIds.registered);
  });

  it('say that the user is a child', () => {
    const { regs } = bidRequest(app, { ...question, format: 'banner', isChild: true }, 'r1');
    expect(regs).toEqual({ coppa: 1 });
  });
});

const track = (event: string) => `http://127.0.0.1:1/cobalt-heron/serve/track/a1/${event}`;
const vast = writeVast({
  id: 'a1',
  system: 'Tallowfield',
  title: 'An ad',
  servingId: 't-a1',
  universalId: { registry: 'tallowfield.example', value: 'A1' },
  impressions: [track('impression')],
  errors: [],
  seconds: 15,
  skip: 5,
  trackers: ['start', 'complete'].map((event) => ({ event, url: track(event) })),
  clickThrough: 'https://shop.tallowfield.example/a1',
  clickTracking: [track('click')],
  media: [{ url: 'http://127.0.0.1:1/v.mp4', width: 640, height: 360, bitrate: 600 }],
});

describe('answers of networks', () => {
  const bid = (adm: string) => ({
    id: 'r1',
    seatbid: [{ bid: [{ id: 'a1', adm, burl: track('impression'), ext: { test: true } }] }],
  });

  it('are read from banners, videos and native ads, with their trackers', () => {
    const events = (adm: string) => [...readBids(bid(adm)).trackers].sort();
    expect(events(`<a href="x" ping="${track('click')}"></a>`)).toEqual([
      ['click', track('click')],
      ['impression', track('impression')],
    ]);
    expect(new Map(events(vast)).get('complete')).toBe(track('complete'));
    const native = {
      native: {
        link: { url: 'x', clicktrackers: [track('click')] },
        eventtrackers: [{ event: 1, url: track('impression') }],
      },
    };
    expect(events(JSON.stringify(native)).map(([event]) => event)).toEqual(['click', 'impression']);
    expect(readBids(bid(vast)).answer).toEqual({ is: 'filled', ad: 'a1', test: true, seconds: 15 });
  });

  it('give the reason of a refusal', () => {
    const reasons = [{ impid: '1', code: 'unit-paused', message: 'It is paused.' }];
    expect(readBids({ id: 'r1', nbr: 0, ext: { reasons } }).answer).toEqual({
      is: 'refused',
      code: 'unit-paused',
      text: 'It is paused.',
    });
    expect(readBids({ id: 'r1', nbr: 0 }).answer).toEqual({ is: 'no-fill' });
  });

  it('are read from tags; one without an ad is none', () => {
    expect(readTag(vast, false).answer).toMatchObject({ is: 'filled', seconds: 15 });
    expect(readTag(writeVast(null), false).answer).toEqual({ is: 'no-fill' });
    expect(readTag('<VAST', false).answer).toEqual({ is: 'no-fill' });
  });

  it('of any kind are read without failing', () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.string(), (body, adm) => {
        expect(readBids(body).answer.is).toMatch(/^(filled|no-fill|refused|unreachable)$/);
        expect(readBids(bid(adm)).answer.is).toBe('filled');
        expect(readTag(adm, false).answer.is).toMatch(/^(filled|no-fill)$/);
      }),
      { numRuns: 300 },
    );
  });
});
