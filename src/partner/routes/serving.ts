import { setTimeout as sleep } from 'node:timers/promises';
import type { Request, Response, Router } from 'express';
import * as z from 'zod';
import type { Profile } from '../../core/network/model.js';
import { BidRequest } from '../../core/standards/openrtb.js';
import { writeVast } from '../../core/standards/vast.js';
import { readPattern } from '../../core/text/patterns.js';
import { networkOf, type PartnerContext } from '../context.js';
import { Refusal } from '../errors.js';
import { bidsFor, vastFor, type Addresses } from '../serving/answers.js';
import type { AdAsk } from '../serving/ad.js';
import { decide } from '../serving/decide.js';
import { deliveryRoute } from '../serving/delivery.js';
import { reportReward } from '../serving/rewards.js';
import { adEventNames } from '../store/ledger.js';

const TagQuery = z.object({
  unit: z.string().min(1).max(2_000),
  device: z.string().max(200).optional(),
  development: z.enum(['0', '1']).optional(),
  child: z.enum(['0', '1']).optional(),
});
const AdEvent = z.enum(adEventNames);

/** A picture of one transparent point. */
const picture = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAQAAAC1HAwCAAAAC0lEQVR42mNkYAAAAAYAAjCB0C8AAAAASUVORK5CYII=',
  'base64',
);

/** The ad server: display and native ads by OpenRTB, video by VAST, and event tracking. */
export function servingRoutes(router: Router, context: PartnerContext): void {
  router.post('/:network/serve/openrtb', (request, response) =>
    answerBids(context, { profile: networkOf(context, request.params.network), request, response }),
  );

  // Where a profile says that its SDK asks: `/at/HOST/PATH` stands for `https://HOST/PATH`.
  router.post('/at/:host/*path', (request, response) => {
    const address = addressAt(request.params);
    const profile = [...context.profiles.values()].find(
      ({ serving }) => serving?.by === 'openrtb' && serving.address === address,
    );
    if (!profile) throw new Refusal('not-found', `No network here is asked at ${address}.`);
    return answerBids(context, { profile, request, response });
  });

  router.get('/:network/serve/tag', async (request, response) => {
    const profile = networkOf(context, request.params.network);
    await answerTag(context, { profile, ask: askOf(request.query), request, response });
  });

  // A tag on record with a fictitious host: `/at/HOST/PATH` stands for `https://HOST/PATH`.
  router.get('/at/:host/*path', async (request, response) => {
    const unit = addressAt(request.params);
    const profile = [...context.profiles.values()].find(
      ({ ids }) => ids.unit && readPattern(ids.unit.pattern).matches(unit),
    );
    if (!profile) throw new Refusal('not-found', `No network here has tags such as ${unit}.`);
    await answerTag(context, { profile, ask: askOf({ ...request.query, unit }), request, response });
  });

  router.all('/:network/serve/track/:ad/:event', async (request, response) => {
    const profile = networkOf(context, request.params.network);
    const event = AdEvent.safeParse(request.params.event);
    if (!event.success)
      throw new Refusal('not-found', `No ad has an event ${request.params.event}.`, { events: adEventNames });
    const noted = context.ledger.happened(profile.id, request.params.ad, event.data);
    const reported = event.data === 'reward' ? await reportReward(context, profile, request.params.ad) : {};
    response.json({ ...noted, ...reported });
  });

  deliveryRoute(router, context);

  router.get('/:network/serve/video/:name', (request, response) => {
    networkOf(context, request.params.network);
    response.type('video/mp4').send(Buffer.from('A simulated video.'));
  });
  router.get('/:network/serve/picture', (request, response) => {
    networkOf(context, request.params.network);
    response.type('png').send(picture);
  });
}

/** What an address under `/at/` stands for. */
function addressAt({ host, path }: { host: string; path: string[] }): string {
  return `https://${host}/${path.map(encodeURIComponent).join('/')}`;
}

async function answerBids(
  context: PartnerContext,
  { profile, request, response }: { profile: Profile; request: Request; response: Response },
): Promise<void> {
  const parsed = BidRequest.safeParse(request.body);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    throw new Refusal('unreadable', issue?.message ?? 'It cannot be read.', {
      field: issue?.path.map(String).join('.'),
    });
  }
  await late(context, profile);
  const answer = bidsFor(context, profile, parsed.data, addressesOf(profile, request));
  if (answer) response.json(answer);
  else response.status(204).end();
}

/** Waits as long as answers of a network take. */
async function late({ market }: PartnerContext, { id }: Profile): Promise<void> {
  const latency = market.latency(id);
  if (latency > 0) await sleep(latency);
}

async function answerTag(
  context: PartnerContext,
  { profile, ask, request, response }: { profile: Profile; ask: AdAsk; request: Request; response: Response },
): Promise<void> {
  await late(context, profile);
  const addresses = addressesOf(profile, request);
  response.type('application/xml');
  try {
    const ad = decide(context, profile, { ...ask, formats: ['video'] });
    if (ad?.isTest) response.setHeader('Ad-Test', '1');
    if (ad) response.send(vastFor(context, profile, ad, addresses));
    else response.status(204).end();
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    // A player gets an empty document; the reason is in a header.
    response.setHeader('Ad-Refused', `${error.code}; ${error.message}`.replace(/[^\x20-\x7e]/g, '?'));
    response.send(writeVast(null));
  }
}

function askOf(query: unknown): AdAsk {
  const parsed = TagQuery.safeParse(query);
  if (!parsed.success)
    throw new Refusal('unreadable', parsed.error.issues[0]?.message ?? 'It cannot be read.', {
      field: parsed.error.issues[0]?.path.map(String).join('.'),
    });
  const { unit, device, development, child } = parsed.data;
  return { unit, device, isDevelopment: development === '1', isChild: child === '1' };
}

/** The addresses that ads of a network carry, at this partner. */
function addressesOf({ id }: Profile, request: Request): Addresses {
  const base = `http://${request.headers.host ?? '127.0.0.1'}/${id}/serve`;
  return {
    event: (ad, event) => `${base}/track/${ad}/${event}`,
    video: (name) => `${base}/video/${name}`,
    picture: `${base}/picture`,
  };
}
