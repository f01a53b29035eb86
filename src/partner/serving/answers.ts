import type { Profile } from '../../core/network/model.js';
import {
  markupTypes,
  noBid,
  type Bid,
  type BidRequest,
  type BidResponse,
  type Impression,
  type NativeAd,
} from '../../core/standards/openrtb.js';
import { writeVast } from '../../core/standards/vast.js';
import { escapeXml } from '../../core/text/escape-xml.js';
import type { Format } from '../../core/words/words.js';
import type { PartnerContext } from '../context.js';
import { Refusal } from '../errors.js';
import type { AdEventName } from '../store/ledger.js';
import type { GivenAd } from './ad.js';
import { decide } from './decide.js';

/** Where what happens to ads is told, and where their parts are. */
export interface Addresses {
  event: (ad: string, event: AdEventName) => string;
  film: (name: string) => string;
  picture: string;
}

/** The films of every ad: one for each line. */
const films = [
  { name: 'small.mp4', width: 640, height: 360, bitrate: 600 },
  { name: 'middle.mp4', width: 1280, height: 720, bitrate: 1800 },
  { name: 'large.mp4', width: 1920, height: 1080, bitrate: 4500 },
];

const tracked = [
  'start',
  'firstQuartile',
  'midpoint',
  'thirdQuartile',
  'complete',
  'pause',
  'resume',
  'skip',
] as const satisfies readonly AdEventName[];

/** The VAST document of an ad that is given. */
export function vastFor(
  { ledger }: PartnerContext,
  profile: Profile,
  ad: GivenAd,
  addresses: Addresses,
): string {
  const id = ledger.give(profile.id, ad);
  return vastOf(profile, ad, id, addresses);
}

function vastOf(profile: Profile, ad: GivenAd, id: string, { event, film }: Addresses): string {
  const { skippable } = profile.formats[ad.format] ?? {};
  return writeVast({
    id,
    system: profile.name,
    title: titleOf(profile, ad),
    servingId: `${profile.id}-${id}`,
    universalId: { registry: `${profile.id}.example`, value: id.toUpperCase() },
    impressions: [event(id, 'impression')],
    errors: [`${event(id, 'error')}?code=[ERRORCODE]`],
    seconds: 15,
    ...(skippable === false ? {} : { skip: 5 }),
    trackers: tracked
      .filter((name) => name !== 'skip' || skippable !== false)
      .map((name) => ({ event: name, url: event(id, name) })),
    clickThrough: `https://shop.${profile.id}.example/${id}`,
    clickTracking: [event(id, 'click')],
    media: films.map(({ name, ...size }) => ({ url: film(name), ...size })),
  });
}

/**
 * The answer to a bid request: a bid for each impression that is filled. Null where no bid is made and nothing is wrong;
 * where something is, the network's own reasons are beside the number of the standard.
 */
export function bidsFor(
  context: PartnerContext,
  profile: Profile,
  request: BidRequest,
  addresses: Addresses,
): BidResponse | null {
  const bids: Bid[] = [];
  const reasons: NonNullable<BidResponse['ext']>['reasons'] = [];
  for (const imp of request.imp) {
    try {
      const bid = bidFor(context, profile, { request, imp, addresses });
      if (bid) bids.push(bid);
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      reasons.push({ impid: imp.id, code: error.code, message: error.message, ...error.more });
    }
  }
  const ext = reasons.length > 0 ? { ext: { reasons } } : {};
  if (bids.length > 0)
    return { id: request.id, seatbid: [{ bid: bids, seat: profile.id }], cur: 'USD', ...ext };
  if (reasons.length === 0) return null;
  const isBlocked = reasons.some(({ code }) => code === 'account-suspended' || code === 'app-unlisted');
  return { id: request.id, nbr: isBlocked ? noBid.blocked : noBid.unknown, ...ext };
}

function bidFor(
  context: PartnerContext,
  profile: Profile,
  { request, imp, addresses }: { request: BidRequest; imp: Impression; addresses: Addresses },
): Bid | null {
  const { app, device, regs } = request;
  const ad = decide(context, profile, {
    unit: imp.tagid,
    identifier: app.bundle,
    platform: device.os,
    format: formatOf(imp),
    device: device.ifa,
    isDevelopment: device.ext?.development === 1,
    isChild: regs?.coppa === 1,
    floor: imp.bidfloor,
  });
  if (!ad) return null;
  const id = context.ledger.give(profile.id, ad);
  const kind = imp.native ? 'native' : imp.video ? 'video' : 'banner';
  const size = imp.banner?.w && imp.banner.h ? { w: imp.banner.w, h: imp.banner.h } : {};
  const markup = {
    banner: () => bannerOf(profile, ad, id, addresses),
    video: () => vastOf(profile, ad, id, addresses),
    native: () => JSON.stringify(nativeOf(profile, ad, id, addresses)),
  };
  return {
    id,
    impid: imp.id,
    price: ad.price,
    adm: markup[kind](),
    adomain: [`shop.${profile.id}.example`],
    crid: `${profile.id}-${ad.isTest ? 'test' : 'ad'}`,
    ...size,
    mtype: markupTypes[kind],
    burl: addresses.event(id, 'impression'),
    ext: { test: ad.isTest },
  };
}

/** The format that an impression asks for, as far as OpenRTB says it: a reward is `rwdd`, a whole screen `instl`. */
function formatOf({ native, rwdd, instl, banner }: Impression): Format | undefined {
  if (native) return 'native';
  if (rwdd === 1) return 'rewarded';
  if (instl === 1) return 'interstitial';
  return banner ? 'banner' : undefined;
}

const titleOf = ({ name }: Profile, { isTest }: GivenAd): string =>
  isTest ? `Test ad of ${name}` : `An ad of ${name}`;

function bannerOf(profile: Profile, ad: GivenAd, id: string, { event, picture }: Addresses): string {
  const target = `https://shop.${profile.id}.example/${id}`;
  const title = escapeXml(titleOf(profile, ad));
  return `<a href="${target}" ping="${event(id, 'click')}"><img src="${picture}" alt="${title}" /></a>`;
}

function nativeOf(profile: Profile, ad: GivenAd, id: string, { event, picture }: Addresses): NativeAd {
  return {
    native: {
      ver: '1.2',
      assets: [
        { id: 1, required: 1, title: { text: titleOf(profile, ad) } },
        { id: 2, img: { url: picture, w: 1200, h: 627 } },
        { id: 3, data: { value: 'Simulated, and shown to nobody.' } },
      ],
      link: { url: `https://shop.${profile.id}.example/${id}`, clicktrackers: [event(id, 'click')] },
      eventtrackers: [{ event: 1, method: 1, url: event(id, 'impression') }],
    },
  };
}
