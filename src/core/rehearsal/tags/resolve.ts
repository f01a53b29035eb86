import type { ErrorCode } from '../../formats/vast/error-codes.js';
import { fillMacros, type MacroValues } from '../../formats/vast/macros.js';
import type { VastAd, VastDocument, VastUrl } from '../../formats/vast/model.js';
import { readVast } from '../../formats/vast/read.js';

/** What came of asking for an address. */
export interface TagAnswer {
  /** The requested address. */
  url: string;
  /** The document; absent where there was none. */
  text?: string;
  /** Why there was none. */
  failed?: 'unreachable' | 'timeout' | 'status' | 'too-large' | 'redirects' | 'not-text';
  status?: number;
  /** How often the server sent on to another address. */
  redirects?: number;
  /** What the network says of why it has no ad, where it says so. */
  said?: string;
  /** How long it took, in milliseconds. */
  ms?: number;
}

/** One document of the chain. */
export interface TagStep {
  url: string;
  /** How many wrappers lead here. */
  depth: number;
  answer: TagAnswer | null;
  document: VastDocument | null;
}

/** An ad that can be played: the ad itself with the wrappers around it, the outermost first. */
export interface WrappedAd {
  ad: VastAd;
  wrappers: VastAd[];
  /** The index of the document that holds it. */
  step: number;
  /** Its number in that document, after the numbers of the wrappers that lead there. */
  path: readonly number[];
}

/** A way that ended without an ad. */
export interface DeadEnd {
  code: ErrorCode;
  why: string;
  fix: string;
  /** What is called then, the outermost first. */
  errors: VastUrl[];
  step: number;
  place?: { line: number; column: number };
  /** The place in the pod that stays empty. */
  sequence: number | null;
}

export interface ResolvedTag {
  steps: TagStep[];
  ads: WrappedAd[];
  deadEnds: DeadEnd[];
  /** Addresses to fetch before the report can continue. */
  next: string[];
}

/** Documents of one tag, whatever its wrappers and pods lead to. */
export const maxDocuments = 40;

interface Way {
  url: string;
  wrappers: VastAd[];
  urls: string[];
  sequence: number | null;
  /** The number of each ad on the way here, by which what is found is put in the order of the documents. */
  path: number[];
}

/**
 * Follows the wrappers of a tag through known responses. The address of a missing one is in `next`; the tag is followed
 * again when it is known.
 * @param limit the most wrappers to follow
 */
export function resolveTag(
  start: string,
  answers: readonly TagAnswer[],
  { limit, macros = {} }: { limit: number; macros?: MacroValues },
): ResolvedTag {
  const known = new Map(answers.map((answer) => [answer.url, answer]));
  const read = new Map<string, VastDocument>();
  const found: ResolvedTag = { steps: [], ads: [], deadEnds: [], next: [] };
  const ways: Way[] = [{ url: start, wrappers: [], urls: [], sequence: null, path: [] }];
  const paths: number[][] = [];
  let isFull = false;
  for (let way = ways.shift(); way; way = ways.shift()) {
    const { url, wrappers } = way;
    const step = found.steps.length;
    const end = (code: ErrorCode, why: string, fix: string, more: Partial<DeadEnd> = {}) => {
      const errors = wrappers.flatMap((one) => one.errors);
      found.deadEnds.push({ code, why, fix, errors, step, sequence: way.sequence, ...more });
    };
    if (step >= maxDocuments) {
      if (isFull) continue;
      isFull = true;
      end(
        300,
        `The tag leads to more than ${maxDocuments} documents.`,
        'Serve fewer ads, or fewer wrappers.',
      );
      continue;
    }
    const answer = known.get(url) ?? null;
    const document = answer?.text === undefined ? null : (read.get(url) ?? readVast(answer.text));
    if (document) read.set(url, document);
    paths.push(way.path);
    found.steps.push({ url, depth: wrappers.length, answer, document });
    if (!answer) {
      if (!found.next.includes(url)) found.next.push(url);
      continue;
    }
    if (answer.failed === 'status' && (answer.status === 204 || answer.status === 200)) {
      end(wrappers.length > 0 ? 303 : 900, 'The server has no ad (204 or an empty answer).', noAd);
      continue;
    }
    if (!document) {
      const [why, fix] = failureOf(answer);
      end(wrappers.length > 0 ? (answer.failed === 'status' ? 303 : 301) : 900, why, fix);
      continue;
    }
    if (document.ads.length === 0) {
      const code = document.error ?? (wrappers.length > 0 ? 303 : 900);
      const errors = [...wrappers.flatMap((one) => one.errors), ...document.errors];
      end(code, emptyBecause(document, answer.said), answer.said === undefined ? noAd : atNetwork, {
        errors,
      });
      continue;
    }
    ways.push(...follow(document, { way, step, limit, macros, found, end }));
  }
  return inOrder(found, paths);
}

/** What was found level by level, in the order of the documents. */
function inOrder({ steps, ads, deadEnds, next }: ResolvedTag, paths: readonly number[][]): ResolvedTag {
  const pathOf = (step: number) => paths[step] ?? [];
  const order = steps.map((_, step) => step).sort((a, b) => compared(pathOf(a), pathOf(b)));
  const places = new Map(order.map((step, place) => [step, place]));
  const moved = <Item extends { step: number }>(items: readonly Item[]): Item[] =>
    items.map((item) => ({ ...item, step: places.get(item.step) ?? item.step }));
  return {
    steps: order.flatMap((step) => steps[step] ?? []),
    ads: moved(ads).sort((a, b) => compared(a.path, b.path)),
    deadEnds: moved(deadEnds).sort((a, b) => a.step - b.step),
    next,
  };
}

function compared(one: readonly number[], other: readonly number[]): number {
  const at = one.findIndex((number, index) => number !== other[index]);
  return at < 0 ? one.length - other.length : (one[at] ?? 0) - (other[at] ?? -1);
}

interface Following {
  way: Way;
  step: number;
  limit: number;
  macros: MacroValues;
  found: ResolvedTag;
  end: (code: ErrorCode, why: string, fix: string, more?: Partial<DeadEnd>) => void;
}

/** Takes the ads of a document, and gives the ways on that its wrappers open. */
function follow(document: VastDocument, { way, step, limit, macros, found, end }: Following): Way[] {
  const { wrappers, urls } = way;
  const outer = wrappers.at(-1);
  const pods = document.ads.filter(({ sequence }) => sequence !== null);
  // A wrapper takes one ad unless it says allowMultipleAds: the first that stands alone.
  const taken =
    !outer || outer.allowsMany
      ? document.ads
      : document.ads.filter(({ sequence }) => sequence === null).slice(0, 1);
  if (taken.length === 0 && pods.length > 0)
    end(
      303,
      'The wrapper takes one ad alone, and what it leads to is a pod.',
      'Write allowMultipleAds="true" in the wrapper, or serve an ad without a sequence.',
    );
  return taken.flatMap((ad, index): Way[] => {
    const sequence = way.sequence ?? ad.sequence;
    const more = { sequence, place: { line: ad.line, column: ad.column } };
    if (ad.kind === 'inline') {
      found.ads.push({ ad: { ...ad, sequence }, wrappers, step, path: [...way.path, index] });
      return [];
    }
    const inside = { ...more, errors: [...wrappers, ad].flatMap((one) => one.errors) };
    const url = ad.next && fillMacros(ad.next.url, macros);
    if (!url) end(300, 'The wrapper has no address to follow.', 'Add <VASTAdTagURI>.', inside);
    else if (outer?.followsOn === false)
      end(
        300,
        'The outer wrapper forbids further wrappers.',
        'Serve the ad itself here, or take followAdditionalWrappers="false" out of the outer wrapper.',
        inside,
      );
    else if (urls.includes(url) || url === way.url)
      end(
        302,
        `The wrapper leads back to ${url}, so the chain never ends.`,
        'Point it at a document with an ad.',
        inside,
      );
    else if (wrappers.length >= limit)
      end(
        302,
        `More than ${limit} wrappers follow one another.`,
        'Ask the network for a shorter chain: each wrapper costs a request, and players usually give up after five.',
        inside,
      );
    else
      return [
        { url, wrappers: [...wrappers, ad], urls: [...urls, way.url], sequence, path: [...way.path, index] },
      ];
    return [];
  });
}

const atNetwork = 'Resolve this with the network. Until then the title continues without an ad.';
const noAd = 'This also happens when the network has no ad to serve. The title continues without an ad.';

function failureOf({ failed, status }: TagAnswer): [why: string, fix: string] {
  switch (failed) {
    case 'timeout':
      return [
        'The server did not answer in time.',
        'Try again; a player shows content after a few seconds without an ad.',
      ];
    case 'status':
      return [`The server responds ${status ?? 'with an error'}.`, 'Check the address of the tag.'];
    case 'too-large':
      return [
        'The response is larger than 2 MB.',
        'No player reads a document of this size: check what the address serves.',
      ];
    case 'redirects':
      return ['The server redirects more than five times.', 'Use the final URL.'];
    case 'not-text':
      return [
        'The response is not text in a known encoding.',
        'Serve it as UTF-8, and declare that in its first line.',
      ];
    default:
      return [
        'The server cannot be reached.',
        'Check the host of the address, and the network of this machine.',
      ];
  }
}

function emptyBecause({ error, problems }: VastDocument, said?: string): string {
  if (said !== undefined) return `The network gives a reason for no ad: ${said}`;
  const first = problems.find(({ severity }) => severity === 'error');
  return error !== null && first
    ? `The document has no readable ad: ${first.message}`
    : 'The document has no ad.';
}
