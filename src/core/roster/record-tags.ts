import type { Profile } from '../network/model.js';
import { isTagUrl, tagUrlProblems, type TagUrlProblem } from '../network/tag-urls.js';
import { platforms, stages, type Platform, type Stage } from '../words/words.js';
import type { Title } from './model.js';

/** The address of a tag on record, and what is wrong with it. */
export interface RecordTag {
  title: string;
  placement: string;
  network: string;
  platform: Platform;
  stage: Stage;
  url: string;
  problems: TagUrlProblem[];
}

/** The tags of some titles, in their order. */
export function recordTags(titles: ReadonlyMap<string, Title>, profiles: readonly Profile[]): RecordTag[] {
  return [...titles].flatMap(([title, { placements }]) =>
    Object.entries(placements).flatMap(([placement, { units }]) =>
      profiles.flatMap((profile) => {
        const assigned = Object.entries(units).find(([network]) => network === profile.id)?.[1];
        return platforms.flatMap((platform) =>
          stages.flatMap((stage): RecordTag[] => {
            const url = assigned?.[platform]?.[stage];
            if (url === undefined || !isTagUrl(url)) return [];
            const problems = tagUrlProblems(url, profile);
            return [{ title, placement, network: profile.id, platform, stage, url, problems }];
          }),
        );
      }),
    ),
  );
}
