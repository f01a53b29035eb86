import * as z from 'zod';
import {
  AppAdsComparison,
  AppAdsLint,
  AppAdsMerge,
  AppAdsNeeds,
  AppAdsQuestion,
  AppAdsSite,
  AppAdsText,
  AppAdsVerified,
} from '../app-ads.js';
import {
  AttributionComparison,
  AttributionLint,
  AttributionMerge,
  AttributionMergeRequest,
  AttributionNeeds,
  AttributionQuestion,
  AttributionText,
} from '../attribution.js';
import { paths } from '../paths.js';
import {
  TagFollow,
  TagFollowed,
  TagPlayQuestion,
  TagLint,
  TagPlayed,
  TagQuestion,
  TagReport,
} from '../tags.js';
import type { RouteSpec } from './spec.js';

/** app-ads.txt, SKAdNetwork lists and VAST tags. */
export const standardRoutes = {
  appAdsNeeds: {
    ...paths.appAdsNeeds,
    summary: 'The app-ads.txt that the roster requires.',
    answer: AppAdsNeeds,
  },
  lintTags: {
    ...paths.lintTags,
    summary: 'The tags on record, and what is wrong with their addresses.',
    query: z.object({ title: z.string().min(1).max(100).optional() }),
    answer: TagLint,
    faults: ['not-found'],
  },
  followTag: {
    ...paths.followTag,
    summary: 'Fetches the documents of a VAST tag from public addresses, and reports what it shows.',
    body: TagFollow,
    answer: TagFollowed,
    faults: ['invalid'],
  },
  showTag: {
    ...paths.showTag,
    summary: 'Follows a VAST tag through documents of the caller, and reports what it shows.',
    body: TagQuestion,
    answer: TagReport,
  },
  playTag: {
    ...paths.playTag,
    summary:
      'Plays a VAST tag with the actions of a user, and lists what would be called when. Calls nothing.',
    body: TagPlayQuestion,
    answer: TagPlayed,
  },
  lintAppAds: {
    ...paths.lintAppAds,
    summary: 'Checks an app-ads.txt file.',
    body: AppAdsText,
    answer: AppAdsLint,
  },
  compareAppAds: {
    ...paths.compareAppAds,
    summary: 'Compares a file with the records that are needed.',
    body: AppAdsQuestion,
    answer: AppAdsComparison,
  },
  mergeAppAds: {
    ...paths.mergeAppAds,
    summary: 'Adds missing lines to a file.',
    body: AppAdsText,
    answer: AppAdsMerge,
  },
  verifyAppAds: {
    ...paths.verifyAppAds,
    summary: 'Fetches app-ads.txt from the developer site, and compares it with the records that are needed.',
    body: AppAdsSite,
    answer: AppAdsVerified,
    faults: ['invalid', 'site'],
  },
  attributionNeeds: {
    ...paths.attributionNeeds,
    summary: 'The SKAdNetwork identifiers that the roster requires.',
    answer: AttributionNeeds,
  },
  lintAttribution: {
    ...paths.lintAttribution,
    summary: 'Checks a published list of SKAdNetwork identifiers.',
    body: AttributionText,
    answer: AttributionLint,
  },
  mergeAttribution: {
    ...paths.mergeAttribution,
    summary: 'Adds the required identifiers, and those of further lists, to a list.',
    body: AttributionMergeRequest,
    answer: AttributionMerge,
  },
  compareAttribution: {
    ...paths.compareAttribution,
    summary: 'Compares the attribution lists of a tree with the identifiers that networks require.',
    body: AttributionQuestion,
    answer: AttributionComparison,
  },
} as const satisfies Record<string, RouteSpec>;
