import type { TagQuestion, TagReport } from './tags.js';
import { askForTag, tryFile } from './tag-net.js';
import type { NamedHost } from './outgoing.js';

/** Documents together may be this large, in characters; more is not read. */
const maxCharacters = 12_000_000;
/** Files that are tried at a time. */
const tries = 4;

/** How the documents of a tag are reached, and read. */
export interface TagFollowing {
  /** Hosts of the local network that may be asked. */
  named: readonly NamedHost[];
  /** Returns the address to request instead. */
  via: (url: string) => string;
  /** The first document, where it is not fetched. */
  first?: { url: string; text: string } | undefined;
  /** Whether to check that media files are available. */
  media: boolean;
  show: (question: TagQuestion) => Promise<TagReport>;
}

/** Asks for the documents of a tag, one after the other, until the report is whole. */
export async function followTag(
  asked: Omit<TagQuestion, 'answers' | 'reached'>,
  { named, via, first, media, show }: TagFollowing,
): Promise<{ question: TagQuestion; report: TagReport }> {
  const question: TagQuestion = { ...asked, answers: [], reached: [] };
  let report: TagReport | undefined;
  let size = 0;
  for (let next = [question.start]; next.length > 0; next = report.next) {
    for (const url of next) {
      const answer = first?.url === url ? first : await askForTag(url, { named, via });
      size += answer.text?.length ?? 0;
      question.answers.push(size > maxCharacters ? { url, failed: 'too-large' } : answer);
    }
    report = await show(question);
  }
  report ??= await show(question);
  if (!media || report.media.length === 0) return { question, report };
  question.reached = await inTurns(report.media, (url) => tryFile(url, named));
  return { question, report: await show(question) };
}

/** Hosts under `.example` are made up: they are asked at the simulated partner at this address. */
export function viaPartner(partner: string | undefined): (url: string) => string {
  return (url) =>
    partner !== undefined && /^https:\/\/[^/?#]+\.example(?=[/?#]|$)/i.test(url)
      ? `${partner}/at/${url.slice(8)}`
      : url;
}

/** Does the same with all of some, a few at a time; in their order. */
export async function inTurns<Item, Result>(
  items: readonly Item[],
  work: (item: Item) => Promise<Result>,
): Promise<Result[]> {
  const done: Result[] = [];
  for (let at = 0; at < items.length; at += tries)
    done.push(...(await Promise.all(items.slice(at, at + tries).map(work))));
  return done;
}
