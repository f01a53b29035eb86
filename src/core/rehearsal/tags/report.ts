import { chooseMedia, type Choice, type Player, type Reached } from './choose.js';
import { unfilledMacros } from '../../formats/vast/macros.js';
import type { Companion, VastProblem, VastUrl, Verification } from '../../formats/vast/model.js';
import type { DeadEnd, ResolvedTag, WrappedAd } from './resolve.js';
import { inFilm } from '../../formats/vast/times.js';

/** What a tag shows on a player, and what is wrong with it. */
export interface TagReport {
  documents: TagDocument[];
  /** Addresses to fetch before the report is complete. */
  next: string[];
  /** Files that a player would fetch; it chooses by which of them are available. */
  media: string[];
  ads: TagAd[];
  deadEnds: Omit<DeadEnd, 'errors'>[];
  /** Addresses without https, which platforms block unless the app allows them. */
  insecure: { what: string; url: string }[];
  macros: {
    /** What looks like a macro and is none, so it is sent as it is written. */
    unfilled: { macro: string; what: string }[];
    /** Macros that a player in an app has no value for; they become -1. */
    withoutValue: string[];
  };
}

export interface TagDocument {
  url: string;
  depth: number;
  version: string | null;
  redirects: number;
  ms: number | null;
  failed: string | null;
  ads: number;
  problems: VastProblem[];
}

export interface TagAd {
  document: number;
  id: string | null;
  sequence: number | null;
  /** The systems that the ad came through, the outermost first. */
  systems: string[];
  title: string;
  /** In milliseconds. */
  duration: number | null;
  /** From when on it can be skipped, in milliseconds; null where it cannot. */
  skip: number | null;
  choice: Choice;
  impressions: number;
  quartiles: Record<string, number>;
  trackers: number;
  clickThrough: string | null;
  clickTracking: number;
  companions: Companion[];
  verifications: Verification[];
  icons: number;
  nonLinears: number;
  interactive: number;
}

const quartiles = ['start', 'firstQuartile', 'midpoint', 'thirdQuartile', 'complete'];

/** The most media files whose availability is checked for one report. */
const maxMedia = 20;

/** Says what a tag shows on a player. */
export function reportTag(tag: ResolvedTag, player: Player, reached: readonly Reached[] = []): TagReport {
  const named = urlsOf(tag);
  return {
    documents: tag.steps.map(({ url, depth, answer, document }) => ({
      url,
      depth,
      version: document?.version ?? null,
      redirects: answer?.redirects ?? 0,
      ms: answer?.ms ?? null,
      failed: answer && !document ? (answer.failed ?? 'unreachable') : null,
      ads: document?.ads.length ?? 0,
      problems: document?.problems ?? [],
    })),
    next: tag.next,
    media: [...new Set(tag.ads.flatMap(({ ad }) => ad.linear?.media.map(({ url }) => url) ?? []))].slice(
      0,
      maxMedia,
    ),
    ads: tag.ads.map((one) => adReport(one, player, reached)),
    deadEnds: tag.deadEnds.map(({ errors: _, ...end }) => end),
    insecure: named.filter(
      ({ url }) => /^http:/i.test(url) && !/^http:\/\/(127\.0\.0\.1|localhost)[:/]/i.test(url),
    ),
    macros: {
      unfilled: named.flatMap(({ what, url }) =>
        unfilledMacros(url).unknown.map((macro) => ({ macro, what })),
      ),
      withoutValue: [...new Set(named.flatMap(({ url }) => unfilledMacros(url).withoutValue))].sort(),
    },
  };
}

function adReport({ ad, wrappers, step }: WrappedAd, player: Player, reached: readonly Reached[]): TagAd {
  const all = [...wrappers, ad];
  const trackers = all.flatMap(({ linear }) => linear?.trackers ?? []);
  const { linear } = ad;
  const duration = linear?.duration ?? null;
  return {
    document: step,
    id: ad.id,
    sequence: ad.sequence,
    systems: all.map(({ system }) => system),
    title: ad.title,
    duration,
    skip: linear?.skip && duration !== null ? inFilm(linear.skip, duration) : null,
    choice: chooseMedia(linear?.media ?? [], player, reached),
    impressions: all.flatMap(({ impressions }) => impressions).length,
    quartiles: Object.fromEntries(
      quartiles.map((name) => [name, trackers.filter(({ event }) => event === name).length]),
    ),
    trackers: trackers.length,
    clickThrough: linear?.clickThrough?.url ?? null,
    clickTracking: all.flatMap((one) => one.linear?.clickTracking ?? []).length,
    companions: all.flatMap(({ companions }) => companions),
    verifications: all.flatMap(({ verifications }) => verifications),
    icons: all.reduce((sum, one) => sum + (one.linear?.icons ?? 0), 0),
    nonLinears: ad.nonLinears,
    interactive: linear?.interactive.length ?? 0,
  };
}

/** Every address of a tag with what it is for, each once. */
function urlsOf(tag: ResolvedTag): { what: string; url: string }[] {
  const found = new Map<string, { what: string; url: string }>();
  const add = (what: string, urls: readonly (Pick<VastUrl, 'url'> | undefined)[]) => {
    for (const one of urls) if (one && !found.has(one.url)) found.set(one.url, { what, url: one.url });
  };
  add('tag', tag.steps.slice(0, 1));
  for (const { document } of tag.steps)
    for (const ad of document?.ads ?? []) {
      add('wrapper', [ad.next]);
      add('impression', ad.impressions);
      add('error', ad.errors);
      add('viewable', ad.viewable);
      add('file', ad.linear?.media ?? []);
      for (const tracker of ad.linear?.trackers ?? []) add(tracker.event, [tracker]);
      add('click', [ad.linear?.clickThrough, ...(ad.linear?.clickTracking ?? [])]);
      add(
        'companion',
        ad.companions.flatMap(({ resource, clickThrough }) => [
          ...(resource && resource.kind !== 'html' ? [{ url: resource.value }] : []),
          ...(clickThrough ? [{ url: clickThrough }] : []),
        ]),
      );
      for (const { scripts } of ad.verifications)
        add(
          'verification',
          scripts.map((url) => ({ url })),
        );
    }
  return [...found.values()];
}
