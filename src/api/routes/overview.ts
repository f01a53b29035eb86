import * as z from 'zod';
import { IdTrace } from '../../core/id-trace/trace.js';
import { PortfolioEntry } from '../../core/portfolio/portfolio.js';
import { SearchAnswer, SearchQuery, TraceQuery } from '../overview.js';
import { paths } from '../paths.js';
import { pageOf, type RouteSpec } from './spec.js';

/** What is asked across all titles. */
export const overviewRoutes = {
  portfolio: {
    ...paths.portfolio,
    summary: 'All titles, in their order: what is wired, and whether it agrees.',
    query: pageOf(100),
    answer: z.array(PortfolioEntry),
    paged: true,
  },
  search: {
    ...paths.search,
    summary: 'Finds a text in IDs, titles, placements, networks and rules.',
    query: SearchQuery,
    answer: SearchAnswer,
  },
  traceId: {
    ...paths.traceId,
    summary: 'Everything known about an ID: its owner, where it is used, when it was set, what it earned.',
    query: TraceQuery,
    answer: IdTrace,
  },
} as const satisfies Record<string, RouteSpec>;
