import * as z from 'zod';
import { paths } from '../paths.js';
import {
  CompareAnswer,
  CompareQuery,
  FetchAnswer,
  FetchRequest,
  FiguresAnswer,
  FiguresQuery,
  ImportList,
  ImportQuery,
  ImportSummary,
  RatesAnswer,
  RatesRequest,
  Release,
  SilentAnswer,
  SilentQuery,
  WeekAnswer,
} from '../tally.js';
import { nothing, partnerFaults, type RouteSpec } from './spec.js';

/** Daily numbers: what placements earn. */
export const tallyRoutes = {
  importTally: {
    ...paths.importTally,
    summary: 'Imports a table of daily numbers, in the columns of a network.',
    query: ImportQuery,
    sent: { type: 'text/csv', description: 'The table, of any length.' },
    answer: ImportSummary,
    faults: ['invalid', 'not-found'],
  },
  fetchTally: {
    ...paths.fetchTally,
    summary: 'Fetches daily numbers from networks.',
    body: FetchRequest,
    answer: FetchAnswer,
    progress: true,
    faults: partnerFaults,
  },
  listImports: { ...paths.listImports, summary: 'The last imports of daily numbers.', answer: ImportList },
  figures: {
    ...paths.figures,
    summary: 'What placements earned.',
    query: FiguresQuery,
    answer: FiguresAnswer,
    faults: ['invalid', 'not-found'],
  },
  compareTally: {
    ...paths.compareTally,
    summary: 'Why revenue changed between two spans of days.',
    query: CompareQuery,
    answer: CompareAnswer,
    faults: ['invalid', 'not-found'],
  },
  tallyWeek: {
    ...paths.tallyWeek,
    summary: 'What each unit earned in the last seven days.',
    query: SilentQuery,
    answer: WeekAnswer,
    faults: ['not-found'],
  },
  silentTally: {
    ...paths.silentTally,
    summary: 'Placements that earn nothing or contradict the roster, by daily numbers.',
    query: SilentQuery,
    answer: SilentAnswer,
    faults: ['not-found'],
  },
  listReleases: {
    ...paths.listReleases,
    summary: 'The released versions of a title.',
    answer: z.array(Release),
  },
  setRelease: {
    ...paths.setRelease,
    summary: 'Records the release day of a version.',
    body: Release,
    answer: nothing,
    faults: ['invalid', 'not-found'],
  },
  dropRelease: {
    ...paths.dropRelease,
    summary: 'Removes a release.',
    query: Release.pick({ platform: true, version: true }),
    answer: nothing,
  },
  setRates: {
    ...paths.setRates,
    summary: 'Imports a table of daily exchange rates.',
    body: RatesRequest,
    answer: RatesAnswer,
    faults: ['invalid'],
  },
} as const satisfies Record<string, RouteSpec>;
