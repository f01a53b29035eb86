import * as z from 'zod';
import { TitleDraft } from '../../core/adopting/model.js';
import { Board } from '../../core/board/model.js';
import { Placement } from '../../core/roster/model.js';
import { paths } from '../paths.js';
import { Steps, StoreListing, TickWrite } from '../steps.js';
import {
  HistoryEntry,
  IdWrite,
  NewTitle,
  DraftRequest,
  TakeDraft,
  PlacementRecord,
  TitleHead,
  TitleRecord,
  TitleSummary,
} from '../titles.js';
import { AcceptanceList, AcceptRequest } from '../trees.js';
import { nothing, pageOf, partnerFaults, type RouteSpec } from './spec.js';

/** Titles, their placements, IDs, steps and accepted findings. */
export const titleRoutes = {
  listTitles: {
    ...paths.listTitles,
    summary: 'All titles, in their order.',
    query: pageOf(1000),
    answer: z.array(TitleSummary),
    paged: true,
  },
  addTitle: {
    ...paths.addTitle,
    summary: 'Adds a title.',
    body: NewTitle,
    answer: TitleRecord,
    created: 'always',
    tagged: true,
    faults: ['exists'],
  },
  draftTitle: {
    ...paths.draftTitle,
    summary: 'Drafts a title from snapshots of its trees; nothing is stored.',
    body: DraftRequest,
    answer: TitleDraft,
  },
  takeDraft: {
    ...paths.takeDraft,
    summary: 'Adds the titles of a document to the roster; existing titles are refused.',
    body: TakeDraft,
    answer: z.array(TitleRecord),
    created: 'always',
    faults: ['exists'],
  },
  showTitle: { ...paths.showTitle, summary: 'One title, whole.', answer: TitleRecord, tagged: true },
  changeTitle: {
    ...paths.changeTitle,
    summary: 'Changes name, audience, stages or editions.',
    body: TitleHead,
    answer: TitleRecord,
    versioned: true,
    tagged: true,
  },
  removeTitle: { ...paths.removeTitle, summary: 'Removes a title.', answer: nothing, versioned: true },
  leaveNetwork: {
    ...paths.leaveNetwork,
    summary: 'Removes a network from a title, with all its IDs.',
    answer: TitleRecord,
    faults: ['invalid'],
    versioned: true,
    tagged: true,
  },
  putPlacement: {
    ...paths.putPlacement,
    summary: 'Adds a placement (If-None-Match: *) or changes one (If-Match).',
    body: Placement,
    answer: PlacementRecord,
    versioned: true,
    tagged: true,
    created: 'if-new',
  },
  showPlacement: {
    ...paths.showPlacement,
    summary: 'One placement of a title.',
    answer: PlacementRecord,
    tagged: true,
  },
  removePlacement: {
    ...paths.removePlacement,
    summary: 'Removes a placement.',
    answer: nothing,
    versioned: true,
  },
  setId: {
    ...paths.setId,
    summary: 'Sets or removes an ID. If-Match names the version of the title.',
    body: IdWrite,
    answer: TitleRecord,
    versioned: true,
    tagged: true,
  },
  titleHistory: {
    ...paths.titleHistory,
    summary: 'Changes, latest first.',
    query: pageOf(100),
    answer: z.array(HistoryEntry),
    paged: true,
  },
  revertChange: {
    ...paths.revertChange,
    summary: 'Reverts one change of a title. It is refused if the field has changed since.',
    body: z.object({}),
    answer: TitleRecord,
    faults: ['changed', 'invalid'],
    tagged: true,
  },
  board: { ...paths.board, summary: 'The board of a title.', answer: Board },
  steps: {
    ...paths.steps,
    summary: 'The ordered steps of a title, each with its state and evidence.',
    answer: Steps,
  },
  tick: {
    ...paths.tick,
    summary: 'Marks a step as done that no tree or list can show, or removes the mark.',
    body: TickWrite,
    answer: Steps,
  },
  listAccepted: {
    ...paths.listAccepted,
    summary: 'Lists the findings of a title that were accepted.',
    answer: AcceptanceList,
  },
  accept: {
    ...paths.accept,
    summary: 'Accepts a finding of the last readings of a title, with a reason and a date.',
    body: AcceptRequest,
    answer: AcceptanceList,
  },
  withdraw: {
    ...paths.withdraw,
    summary: 'Withdraws an acceptance.',
    answer: AcceptanceList,
  },
  lookUp: {
    ...paths.lookUp,
    summary: 'Looks the editions of a title up in the store.',
    answer: z.array(StoreListing),
    faults: partnerFaults,
  },
} as const satisfies Record<string, RouteSpec>;
