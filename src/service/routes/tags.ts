import { randomInt } from 'node:crypto';
import { followTag, viaPartner } from '../../api/follow-tag.js';
import { namedHosts } from '../../api/tag-net.js';
import { recordTags } from '../../core/roster/record-tags.js';
import type { TagTask } from '../../core/tag-tasks.js';
import { partnerCardIn } from '../../disk/partner/partner-process.js';
import { ServiceError } from '../errors.js';
import type { Handlers } from '../route.js';

/** Documents of more characters than this are read in a worker thread. */
const large = 100_000;

/** VAST tags: what they show, and what a break with them is. Trackers are never called from here. */
export const tagHandlers = {
  lintTags: ({ query }, { roster, profiles }) => {
    const titles =
      query.title === undefined
        ? Object.entries(roster.roster().titles)
        : [[query.title, roster.get(query.title).title] as const];
    return recordTags(new Map(titles), profiles.profiles());
  },
  followTag: async ({ body: { text, media, partner, ...asked }, signal }, service) => {
    const { runner, home } = service;
    if (text === undefined && !/^https?:\/\//i.test(asked.start))
      throw new ServiceError(
        'invalid',
        `${asked.start.slice(0, 200)} is not an address that a player can fetch.`,
        {
          fix: 'Use one that begins with https://, or send the text of the document.',
        },
      );
    const card = partner ? partnerCardIn(home) : undefined;
    if (partner && !card)
      throw new ServiceError('invalid', 'No simulated partner is running here.', {
        fix: 'Start one: syndexa partner start.',
      });
    return followTag(
      { ...asked, at: service.now().toISOString(), seed: randomInt(100_000_000) },
      {
        named: namedHosts(card?.url ?? '', []),
        via: viaPartner(card?.url),
        first: text === undefined ? undefined : { url: asked.start, text },
        media,
        show: (question) => runner.record('showTag', question, { isLarge: isLarge(question), signal }),
      },
    );
  },
  showTag: ({ body, signal }, { runner }) =>
    runner.record('showTag', body, { isLarge: isLarge(body), signal }),
  playTag: ({ body, signal }, { runner }) =>
    runner.record('playTag', body, { isLarge: isLarge(body), signal }),
} satisfies Partial<Handlers>;

function isLarge({ answers }: Pick<TagTask, 'answers'>): boolean {
  return answers.reduce((sum, { text = '' }) => sum + text.length, 0) > large;
}
