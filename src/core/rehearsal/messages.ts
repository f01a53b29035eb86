import * as z from 'zod';
import { readVast } from '../formats/vast/read.js';
import type { BidRequest } from '../standards/openrtb.js';
import type { Format } from '../words/words.js';
import type { App } from './app/model.js';
import type { AdAnswer, AdQuestion, EventQuestion } from './device/questions.js';

/** The device of rehearsals, in builds that register it for testing and in those that do not. */
export const deviceIds = { registered: 'rehearsal-test-device', other: 'rehearsal-device' } as const;

/** The ID that a device gives of itself; undefined where the user does not allow it to be tracked. */
export function deviceIdFor({ isRegistered, isTracked }: AdQuestion): string | undefined {
  // A device that is registered is known by its ID, whether it may be tracked or not.
  return isRegistered ? deviceIds.registered : isTracked ? deviceIds.other : undefined;
}

/** What a native ad is asked to be made of. */
const nativeRequest = JSON.stringify({
  ver: '1.2',
  assets: [
    { id: 1, required: 1, title: { len: 90 } },
    { id: 2, required: 0, img: { type: 3, wmin: 300, hmin: 157 } },
    { id: 3, required: 0, data: { type: 2, len: 140 } },
  ],
});

/** How an impression of a format is requested (OpenRTB 2.6, section 3.2.4). */
const impressions: Record<Exclude<Format, 'notification'>, object> = {
  banner: { banner: { w: 320, h: 50 } },
  interstitial: { instl: 1, banner: { w: 320, h: 480 } },
  splash: { instl: 1, banner: { w: 320, h: 480 } },
  rewarded: { instl: 1, rwdd: 1, video: { mimes: ['video/mp4'] } },
  video: { video: { mimes: ['video/mp4'] } },
  native: { native: { ver: '1.2', request: nativeRequest } },
};

/** The request that the SDK of a network sends for an ad. */
export function bidRequest(
  { variant, identifier, platform, stage }: App,
  question: AdQuestion & { format: Exclude<Format, 'notification'> },
  id: string,
): z.input<typeof BidRequest> {
  const { unit, format, appId, isChild, isTracked } = question;
  const ifa = deviceIdFor(question);
  return {
    id,
    imp: [{ id: '1', tagid: unit, ...impressions[format] }],
    app: { ...(appId === null ? {} : { id: appId }), bundle: identifier ?? variant },
    device: {
      os: platform,
      ...(isTracked ? { lmt: 0 as const } : { lmt: 1 as const }),
      ...(ifa === undefined ? {} : { ifa }),
      ext: { development: stage === 'test' ? 1 : 0 },
    },
    ...(isChild ? { regs: { coppa: 1 as const } } : {}),
  };
}

const Answer = z.object({
  seatbid: z
    .array(
      z.object({
        bid: z.array(
          z.object({
            id: z.string(),
            adm: z.string(),
            burl: z.string().optional(),
            ext: z.object({ test: z.boolean() }).optional(),
          }),
        ),
      }),
    )
    .optional(),
  ext: z
    .object({ reasons: z.array(z.object({ code: z.string(), message: z.string() })).optional() })
    .optional(),
});

/** Addresses that are called as an ad is shown, by event. */
export type Trackers = ReadonlyMap<EventQuestion['event'], string>;

export interface ReadAnswer {
  answer: AdAnswer;
  trackers: Trackers;
}

const none: Trackers = new Map();

/** What a bid response says. */
export function readBids(body: unknown): ReadAnswer {
  const parsed = Answer.safeParse(body);
  if (!parsed.success)
    return { answer: { is: 'unreachable', text: 'The response is not a bid response.' }, trackers: none };
  const [bid] = parsed.data.seatbid?.flatMap((seat) => seat.bid) ?? [];
  if (bid) {
    const { seconds, trackers } = readMarkup(bid.adm);
    const test = bid.ext?.test ?? false;
    const all = new Map(trackers);
    // The bill is due when the ad is seen.
    if (bid.burl !== undefined) all.set('impression', bid.burl);
    return {
      answer: { is: 'filled', ad: bid.id, test, ...(seconds === null ? {} : { seconds }) },
      trackers: all,
    };
  }
  const [reason] = parsed.data.ext?.reasons ?? [];
  return {
    answer: reason ? { is: 'refused', code: reason.code, text: reason.message } : { is: 'no-fill' },
    trackers: none,
  };
}

/** What a VAST document says; a document without an ad counts as no fill. */
export function readTag(text: string, isTest: boolean): ReadAnswer {
  const { ads } = readVast(text);
  const [ad] = ads;
  if (!ad) return { answer: { is: 'no-fill' }, trackers: none };
  const { seconds, trackers } = readMarkup(text);
  return {
    answer: { is: 'filled', ad: ad.id ?? 'ad', test: isTest, ...(seconds === null ? {} : { seconds }) },
    trackers,
  };
}

const Native = z.object({
  native: z.object({
    link: z.object({ clicktrackers: z.array(z.string()).optional() }),
    eventtrackers: z.array(z.object({ event: z.number(), url: z.string().optional() })).optional(),
  }),
});

/** The trackers of an ad's markup, and the length of its video in seconds. */
function readMarkup(adm: string): { seconds: number | null; trackers: Trackers } {
  const text = adm.trimStart();
  if (text.startsWith('{')) return { seconds: null, trackers: nativeTrackers(text) };
  if (!text.startsWith('<VAST') && !text.startsWith('<?xml')) {
    const click = /\sping="([^"]{1,2000})"/.exec(text)?.[1];
    return { seconds: null, trackers: new Map(click === undefined ? [] : [['click', click]]) };
  }
  return vastTrackers(adm);
}

function nativeTrackers(text: string): Trackers {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return none;
  }
  const parsed = Native.safeParse(value);
  if (!parsed.success) return none;
  const { link, eventtrackers = [] } = parsed.data.native;
  const seen = eventtrackers.find(({ event }) => event === 1)?.url;
  const [click] = link.clicktrackers ?? [];
  return new Map<EventQuestion['event'], string>([
    ...(seen === undefined ? [] : [['impression', seen] as const]),
    ...(click === undefined ? [] : [['click', click] as const]),
  ]);
}

function vastTrackers(text: string): { seconds: number | null; trackers: Trackers } {
  const [ad] = readVast(text).ads;
  const { linear } = ad ?? {};
  if (!ad || !linear) return { seconds: null, trackers: none };
  const [impression] = ad.impressions;
  const [click] = linear.clickTracking;
  const known: readonly string[] = [
    'start',
    'firstQuartile',
    'midpoint',
    'thirdQuartile',
    'complete',
    'skip',
  ];
  const trackers = new Map<EventQuestion['event'], string>([
    ...(impression ? [['impression', impression.url] as const] : []),
    ...(click ? [['click', click.url] as const] : []),
    ...linear.trackers
      .filter(({ event }) => known.includes(event))
      .map(({ event, url }) => [event as EventQuestion['event'], url] as const),
  ]);
  return { seconds: linear.duration === undefined ? null : linear.duration / 1_000, trackers };
}
