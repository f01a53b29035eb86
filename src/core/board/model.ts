import * as z from 'zod';
import { Finding } from '../checks/model.js';
import { Format, Platform, Stage } from '../words/words.js';
import { verdictNames } from '../facts/trace.js';
import { Fact, SurveyEdition, Unresolved } from '../facts/model.js';

export const RecordState = z
  .enum(['set', 'sample', 'missing', 'not-offered', 'not-used', 'clash', 'unknown-to-partner', 'too-new'])
  .meta({ description: 'What the roster says about an ID.' });

export type RecordState = z.infer<typeof RecordState>;

export const BuildState = z
  .enum(['agrees', 'differs', 'absent', 'cannot-tell', 'unread', 'nothing-expected'])
  .meta({ description: 'What the last tree that was read would build.' });

export type BuildState = z.infer<typeof BuildState>;

export const BoardCell = z.object({
  platform: Platform,
  stage: Stage,
  record: RecordState,
  build: BuildState,
  id: z.string().nullable(),
  found: z.array(z.string()).meta({ description: 'What the variants of this stage contain instead.' }),
  why: z.string().meta({ description: 'The state in words.' }),
  left: z.string().nullable().meta({ description: 'For a new unit: how long until it serves ads.' }),
  rehearsed: z
    .object({
      is: z.enum(verdictNames),
      text: z.string(),
      at: z.string(),
      scenario: z.string(),
      old: z.boolean().meta({ description: 'Whether the tree has been read again since.' }),
    })
    .nullable()
    .meta({ description: 'What the last rehearsal showed for the placement; null if there was none.' }),
});

export type BoardCell = z.infer<typeof BoardCell>;

export const BoardRow = z.object({
  placement: z.string().nullable().meta({ description: 'Null for the row of an app ID.' }),
  format: Format.nullable(),
  network: z.string(),
  networkName: z.string(),
  label: z.string(),
  cells: z.array(BoardCell),
});

export type BoardRow = z.infer<typeof BoardRow>;

export const BoardEdition = z.object({
  platform: Platform,
  identifier: z.string(),
  found: z.string().nullable().meta({ description: 'The identifier in the tree.' }),
  tree: z.string().nullable(),
  snapshot: z.string().nullable(),
  before: z.string().nullable().meta({
    description: 'The snapshot of the previous reading, if the tree has changed since.',
  }),
  readAt: z.string().nullable(),
  summary: z.object({ blocker: z.number(), warning: z.number(), note: z.number() }).nullable(),
});

export type BoardEdition = z.infer<typeof BoardEdition>;

export const Board = z
  .object({
    title: z.string(),
    name: z.string(),
    editions: z.array(BoardEdition),
    rows: z.array(BoardRow),
    good: z
      .boolean()
      .meta({ description: 'Every expected ID is in the roster and in the build, and no blocker is open.' }),
  })
  .meta({ title: 'Board', description: 'Test and production, Android and iOS, side by side.' });

export type Board = z.infer<typeof Board>;

/** What was last read of an edition. */
export const Reading = z.object({
  platform: Platform,
  tree: z.string(),
  snapshot: z.string(),
  /** The snapshot of the previous reading, if the tree has changed since. */
  before: z.string().nullish(),
  readAt: z.string(),
  edition: SurveyEdition,
  facts: z.array(Fact),
  unresolved: z.array(Unresolved),
  findings: z.array(Finding.omit({ fix: true })).default([]),
  summary: z.object({ blocker: z.number(), warning: z.number(), note: z.number() }),
});

export type Reading = z.infer<typeof Reading>;
