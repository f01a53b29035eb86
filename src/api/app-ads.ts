import * as z from 'zod';

export const AppAdsText = z.object({ text: z.string().max(2_100_000) });

export const AppAdsQuestion = AppAdsText.extend({
  from: z.url().max(1000).optional().meta({
    description: 'Where the file is served; the last content seen there is stored.',
  }),
});

const SellerRecord = z.object({
  domain: z.string(),
  account: z.string(),
  relationship: z.enum(['DIRECT', 'RESELLER']),
  certification: z.string().optional(),
});

const NeededRecord = z.object({
  network: z.string(),
  networkName: z.string(),
  record: SellerRecord.nullable().meta({ description: 'Null if the account is not known.' }),
  why: z.string(),
  missing: z.string().optional(),
});

export const AppAdsNeeds = z
  .object({ domain: z.string().nullable(), needed: z.array(NeededRecord), text: z.string() })
  .meta({
    title: 'app-ads.txt',
    description: 'The records that the networks of all titles require, and a file that contains them.',
  });
export type AppAdsNeeds = z.infer<typeof AppAdsNeeds>;

export const AppAdsLint = z.object({
  records: z.array(SellerRecord.extend({ line: z.number() })),
  problems: z.array(
    z.object({
      line: z.number(),
      column: z.number(),
      severity: z.enum(['error', 'warning']),
      message: z.string(),
      fix: z.string(),
    }),
  ),
});
export type AppAdsLint = z.infer<typeof AppAdsLint>;

export const AppAdsComparison = z.object({
  comparisons: z.array(
    NeededRecord.extend({
      state: z.enum(['there', 'missing', 'differs', 'unknown-account']),
      line: z.number().optional(),
    }),
  ),
});
export type AppAdsComparison = z.infer<typeof AppAdsComparison>;

export const AppAdsMerge = z.object({ text: z.string(), patch: z.string() });

export const AppAdsSite = z.object({
  url: z.string().max(1000).optional().meta({
    description: 'Where the file is served; default: at the publisher’s domain. Only public addresses.',
  }),
});

export const AppAdsVerified = z
  .object({
    url: z.string().meta({ description: 'Where the file was found, after redirects.' }),
    comparisons: AppAdsComparison.shape.comparisons,
    problems: AppAdsLint.shape.problems,
  })
  .meta({
    title: 'app-ads.txt at the site',
    description: 'What the site serves, compared with what is required.',
  });
export type AppAdsVerified = z.infer<typeof AppAdsVerified>;
