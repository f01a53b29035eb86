import { recordTags } from '../../core/roster/record-tags.js';
import type { TagTask } from '../../core/tag-tasks.js';
import type { Handlers } from '../route.js';

/** Documents of more characters than this are read in a worker thread. */
const large = 100_000;

/** VAST tags: what they show, and what a break with them is. The client fetches; nothing is called from here. */
export const tagHandlers = {
  lintTags: ({ query }, { roster, profiles }) => {
    const titles =
      query.title === undefined
        ? Object.entries(roster.roster().titles)
        : [[query.title, roster.get(query.title).title] as const];
    return recordTags(new Map(titles), profiles.profiles());
  },
  showTag: ({ body, signal }, { runner }) =>
    runner.record('showTag', body, { isLarge: isLarge(body), signal }),
  playTag: ({ body, signal }, { runner }) =>
    runner.record('playTag', body, { isLarge: isLarge(body), signal }),
} satisfies Partial<Handlers>;

function isLarge({ answers }: Pick<TagTask, 'answers'>): boolean {
  return answers.reduce((sum, { text = '' }) => sum + text.length, 0) > large;
}
