import { chooseMedia } from './choose.js';
import type { ErrorCode } from '../../formats/vast/error-codes.js';
import { LinearPlayer } from './linear-player.js';
import type { Action, PlayLine, PlayOptions } from './playback.js';
import { fillMacros, type MacroValues } from '../../formats/vast/macros.js';
import type { DeadEnd, ResolvedTag, WrappedAd } from './resolve.js';

/**
 * Goes through what a player does with a tag: the ads of its pod in order, those that stand alone in the place of ads
 * that fail, and content at the end. Calls nothing; each line says what would be called.
 */
export function playTag(tag: ResolvedTag, options: PlayOptions): PlayLine[] {
  const lines: PlayLine[] = tag.deadEnds.map((end) => failure(end, options));
  const alone = tag.ads.filter(({ ad }) => ad.sequence === null);
  const queue = podOf(tag, alone);
  const actions = [...options.actions].sort((a, b) => a.at - b.at);
  let now = 0;
  let number = 0;
  for (let item = queue.shift(); item; item = queue.shift()) {
    number += 1;
    const count = number + queue.length;
    const outcome = playOne(item, { now, number, count, actions, options });
    lines.push(...outcome.lines);
    now = outcome.now;
    if (outcome.isStuck) return lines;
    // A stand-alone ad replaces one that failed (VAST 4.2, section 2.3.2).
    const spare = outcome.failed ? alone.shift() : undefined;
    if (spare) queue.unshift(spare);
  }
  for (const action of actions)
    lines.push({
      at: Math.max(action.at, now),
      ad: null,
      what: 'ignored',
      name: action.do,
      note: 'No ad is on screen at that time.',
      calls: [],
    });
  lines.push({
    at: now,
    ad: null,
    what: 'content',
    name: 'content',
    note: 'Content resumes.',
    calls: [],
  });
  return lines.sort((a, b) => a.at - b.at);
}

/**
 * The ads to show, in order. A stand-alone ad fills a place in a pod that a wrapper left empty; without a pod, one of
 * them is shown. Used ads are removed from `alone`.
 */
function podOf({ ads, deadEnds }: ResolvedTag, alone: WrappedAd[]): WrappedAd[] {
  const inPod = ads.filter(({ ad }) => ad.sequence !== null);
  if (inPod.length === 0) return alone.splice(0, 1);
  const places = [
    ...inPod.map((item) => ({ sequence: item.ad.sequence ?? 0, item })),
    ...deadEnds.flatMap(({ sequence }) => (sequence === null ? [] : [{ sequence, item: undefined }])),
  ];
  return places.sort((a, b) => a.sequence - b.sequence).flatMap(({ item }) => item ?? alone.shift() ?? []);
}

interface One {
  now: number;
  number: number;
  count: number;
  /** What is still to happen; what happens is taken off its head. */
  actions: Action[];
  options: PlayOptions;
}

function playOne(
  item: WrappedAd,
  one: One,
): { lines: PlayLine[]; now: number; failed: boolean; isStuck: boolean } {
  const { now, number, options } = one;
  const { linear } = item.ad;
  const fails = (code: ErrorCode, note: string) => {
    const urls = [...item.wrappers, item.ad].flatMap(({ errors }) => errors);
    const line = errorLine({ at: now, ad: number, code, note, urls: urls.map(({ url }) => url) }, options);
    return { lines: [line], now, failed: true, isStuck: false };
  };
  if (!linear)
    return fails(
      201,
      item.ad.nonLinears > 0 ? 'It is a non-linear ad, which is shown over a video.' : 'It has no linear ad.',
    );
  const choice = chooseMedia(linear.media, options.player, options.reached);
  if (!choice.file) return fails(choice.error ?? 403, choice.why);
  if (linear.duration === undefined) return fails(101, 'Its duration cannot be read.');
  return new LinearPlayer(item, { ...one, linear, file: choice.file, duration: linear.duration }).play();
}

function failure({ code, why, errors, step }: DeadEnd, options: PlayOptions): PlayLine {
  const note = step === 0 ? why : `Document ${step + 1}: ${why}`;
  return errorLine({ at: 0, ad: null, code, note, urls: errors.map(({ url }) => url) }, options);
}

function errorLine(
  {
    at,
    ad,
    code,
    note,
    urls,
  }: { at: number; ad: number | null; code: ErrorCode; note: string; urls: string[] },
  { startsAt, seed }: PlayOptions,
): PlayLine {
  const values: MacroValues = {
    ERRORCODE: String(code),
    CACHEBUSTING: String(seed).padStart(8, '0'),
    TIMESTAMP: new Date(startsAt + at).toISOString(),
  };
  return {
    at,
    ad,
    what: 'error',
    name: 'error',
    code,
    note,
    calls: urls.map((url) => fillMacros(url, values)),
  };
}
