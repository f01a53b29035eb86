import type { Profile } from '../../core/network/model.js';
import {
  markupTypes,
  NativeRequest,
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
import { linearEvents, type AdEventName } from '../store/ledger.js';
import type { GivenAd } from './ad.js';
import { decide } from './decide.js';

/** The addresses that an ad carries: event trackers and media. */
export interface Addresses {
  event: (ad: string, event: AdEventName) => string;
  video: (name: string) => string;
  picture: string;
}

/** What prices are in. */
const currency = 'USD';

/** The media files of every ad, one per bandwidth. */
const mediaFiles = [
  { name: 'small.mp4', width: 640, height: 360, bitrate: 600 },
  { name: 'middle.mp4', width: 1280, height: 720, bitrate: 1800 },
  { name: 'large.mp4', width: 1920, height: 1080, bitrate: 4500 },
];

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

function vastOf(profile: Profile, ad: GivenAd, id: string, { event, video }: Addresses): string {
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
    trackers: linearEvents
      .filter((name) => name !== 'skip' || skippable !== false)
      .map((name) => ({ event: name, url: event(id, name) })),
    clickThrough: `https://shop.${profile.id}.example/${id}`,
    clickTracking: [event(id, 'click')],
    media: mediaFiles.map(({ name, ...size }) => ({ url: video(name), ...size })),
  });
}

/**
 * The answer to a bid request: a bid for each impression that is filled. Null where no bid is made and nothing is
 * wrong; where something is, the network's own reasons are beside the number of the standard.
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
    return { id: request.id, seatbid: [{ bid: bids, seat: profile.id }], cur: currency, ...ext };
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
  const asked = imp.native && assetsOf(imp.native.request);
  checkMoney(request, imp);
  if (imp.video && !imp.video.mimes.includes('video/mp4'))
    throw new Refusal('content-unknown', 'The request does not accept video/mp4, the only type served here.');
  const ad = decide(context, profile, {
    unit: imp.tagid,
    app: app.id,
    identifier: app.bundle,
    platform: device.os,
    formats: formatsOf(imp),
    isTest: request.test === 1,
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
    native: () => JSON.stringify(nativeOf(profile, ad, { id, asked: asked ?? [], addresses })),
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

/** Prices are in US dollars, and nothing is converted. */
function checkMoney({ cur }: BidRequest, { bidfloorcur }: Impression): void {
  if (bidfloorcur === currency && (cur?.includes(currency) ?? true)) return;
  throw new Refusal('currency-unknown', `Prices here are in ${currency}, and nothing is converted.`);
}

/**
 * The formats that an impression can show, as far as OpenRTB says it: a reward is `rwdd`, a whole screen `instl`, which
 * a splash has too. Undefined where it says nothing.
 */
function formatsOf({ native, rwdd, instl, banner, video }: Impression): Format[] | undefined {
  if (native) return ['native'];
  if (rwdd === 1) return ['rewarded'];
  if (instl === 1) return ['interstitial', 'splash'];
  if (banner) return ['banner'];
  return video ? ['video'] : undefined;
}

/** What a native ad is asked to be made of. */
function assetsOf(text: string): NativeRequest['assets'] {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Refusal('unreadable', 'The native request is not JSON.', { field: 'native.request' });
  }
  // Some wrap it once more, as Native 1.0 did.
  const inner = value !== null && typeof value === 'object' && 'native' in value ? value.native : value;
  const parsed = NativeRequest.safeParse(inner);
  if (parsed.success) return parsed.data.assets;
  const [issue] = parsed.error.issues;
  throw new Refusal('unreadable', issue?.message ?? 'It cannot be read.', {
    field: ['native.request', ...(issue?.path ?? [])].map(String).join('.'),
  });
}

const titleOf = ({ name }: Profile, { isTest }: GivenAd): string =>
  isTest ? `Test ad of ${name}` : `An ad of ${name}`;

function bannerOf(profile: Profile, ad: GivenAd, id: string, { event, picture }: Addresses): string {
  const target = `https://shop.${profile.id}.example/${id}`;
  const title = escapeXml(titleOf(profile, ad));
  return `<a href="${target}" ping="${event(id, 'click')}"><img src="${picture}" alt="${title}" /></a>`;
}

/** A native ad with the requested assets that this network has. */
function nativeOf(
  profile: Profile,
  ad: GivenAd,
  { id, asked, addresses }: { id: string; asked: NativeRequest['assets']; addresses: Addresses },
): NativeAd {
  const { event, picture } = addresses;
  const short = (text: string, length = text.length) => text.slice(0, length);
  return {
    native: {
      ver: '1.2',
      assets: asked.flatMap(({ id: asset, required, title, img, data }): NativeAd['native']['assets'] => {
        if (title) return [{ id: asset, title: { text: short(titleOf(profile, ad), title.len) } }];
        if (img) return [{ id: asset, img: { url: picture, w: img.wmin ?? 1200, h: img.hmin ?? 627 } }];
        if (data) return [{ id: asset, data: { value: short('Simulated, and shown to nobody.', data.len) } }];
        if (required === 0) return [];
        throw new Refusal('asset-unknown', `The asset ${asset} is of a kind that no ad here has.`);
      }),
      link: { url: `https://shop.${profile.id}.example/${id}`, clicktrackers: [event(id, 'click')] },
      eventtrackers: [{ event: 1, method: 1, url: event(id, 'impression') }],
    },
  };
}
