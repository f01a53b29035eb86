import { z } from 'zod';
import { Board } from '../core/board/board.js';
import { CheckReport } from '../core/checks/model.js';
import { Profile } from '../core/network/model.js';
import { Roster } from '../core/roster/model.js';
import { Survey } from '../core/survey/model.js';
import { AppAdsNeeds } from './app-ads.js';
import { Problem } from './problem.js';
import { TitleRecord } from './titles.js';
import { WiringAnswer } from './trees.js';

/** What documents and answers look like, by name. Documents that people write are described as they are written. */
const published: Record<string, { type: z.ZodType; io: 'input' | 'output' }> = {
  roster: { type: Roster, io: 'input' },
  profile: { type: Profile, io: 'input' },
  survey: { type: Survey, io: 'output' },
  check: { type: CheckReport, io: 'output' },
  wire: { type: WiringAnswer, io: 'output' },
  board: { type: Board, io: 'output' },
  appads: { type: AppAdsNeeds, io: 'output' },
  title: { type: TitleRecord, io: 'output' },
  problem: { type: Problem, io: 'output' },
};

let made: Record<string, Record<string, unknown>> | undefined;

/** The JSON Schemas (draft 2020-12) of everything that is published. */
export function schemaDocuments(): Record<string, Record<string, unknown>> {
  made ??= Object.fromEntries(
    Object.entries(published).map(([name, { type, io }]) => [
      name,
      z.toJSONSchema(type, { io, unrepresentable: 'any' }),
    ]),
  );
  return made;
}
