import * as z from 'zod';

// OpenRTB 2.6 and OpenRTB Native 1.2, as far as an ad in an application needs them. Fields that are not named here are
// passed over, as the specification asks.

const flag = z.union([z.literal(0), z.literal(1)]);
const text = z.string().max(500);

/** What a native ad has to be made of (Native 1.2, section 4.1); it comes as text within a request. */
export const NativeRequest = z.object({
  assets: z
    .array(
      z.object({
        id: z.number().int(),
        required: flag.default(0),
        title: z.object({ len: z.number().int().min(1).max(1_000) }).optional(),
        img: z
          .object({ wmin: z.number().int().min(1).optional(), hmin: z.number().int().min(1).optional() })
          .optional(),
        data: z.object({ len: z.number().int().min(1).max(1_000).optional() }).optional(),
      }),
    )
    .min(1)
    .max(50),
});
export type NativeRequest = z.output<typeof NativeRequest>;

/** One place for an ad (OpenRTB 2.6, section 3.2.4). */
const Imp = z.object({
  id: text.min(1),
  tagid: z.string().min(1).max(2_000),
  instl: flag.default(0),
  rwdd: flag.default(0),
  bidfloor: z.number().min(0).max(10_000).default(0),
  bidfloorcur: z.string().length(3).default('USD'),
  banner: z
    .object({
      w: z.number().int().min(1).max(10_000).optional(),
      h: z.number().int().min(1).max(10_000).optional(),
    })
    .optional(),
  video: z.object({ mimes: z.array(text).min(1).max(20) }).optional(),
  native: z.object({ request: z.string().max(20_000) }).optional(),
});

/** A request for ads of one application (OpenRTB 2.6, section 3.2.1). */
export const BidRequest = z.object({
  id: text.min(1),
  imp: z.array(Imp).min(1).max(50),
  app: z.object({ id: text.optional(), bundle: text.min(1) }),
  device: z.object({
    ifa: text.optional(),
    os: z.enum(['android', 'ios']),
    /** 1 if the user limits tracking (section 3.2.18). */
    lmt: flag.optional(),
    ext: z.object({ development: flag.optional() }).optional(),
  }),
  regs: z.object({ coppa: flag.optional() }).optional(),
  /** 1 for test mode: the ad is not billable. */
  test: flag.default(0),
  cur: z.array(z.string().length(3)).max(10).optional(),
});
export type BidRequest = z.output<typeof BidRequest>;
export type Impression = BidRequest['imp'][number];

/** What an ad is, in the words of OpenRTB 2.6 (`mtype`, section 4.2.3). */
export const markupTypes = { banner: 1, video: 2, native: 4 } as const;

/** Why there is no bid (the list of no-bid reasons, 5.24 in OpenRTB 2.5). */
export const noBid = { unknown: 0, invalid: 2, blocked: 7 } as const;

/** One bid (OpenRTB 2.6, section 4.2.3). */
export interface Bid {
  id: string;
  impid: string;
  /** For a thousand impressions, in units of the currency. */
  price: number;
  adm: string;
  adomain: string[];
  crid: string;
  w?: number;
  h?: number;
  mtype: number;
  /** Called when the ad is billed. */
  burl: string;
  ext: { test: boolean };
}

/** An answer (OpenRTB 2.6, section 4.2.1). */
export interface BidResponse {
  id: string;
  seatbid?: { bid: Bid[]; seat: string }[];
  cur?: string;
  nbr?: number;
  ext?: { reasons: { impid: string; code: string; message: string; [more: string]: unknown }[] };
}

/** A native ad as its markup carries it (Native 1.2, section 5.1). */
export interface NativeAd {
  native: {
    ver: '1.2';
    assets: (
      | { id: number; title: { text: string } }
      | { id: number; img: { url: string; w: number; h: number } }
      | { id: number; data: { value: string } }
    )[];
    link: { url: string; clicktrackers: string[] };
    /** Event 1 is an impression, method 1 a pixel. */
    eventtrackers: { event: 1; method: 1; url: string }[];
  };
}
