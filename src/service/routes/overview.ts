import { nextPage, type Handlers } from '../route.js';

/** What is asked across all titles. */
export const overviewHandlers = {
  portfolio: async ({ query, request, response, signal }, { roster, overviewing }) => {
    const { summaries, next } = roster.page(query);
    if (next !== undefined) nextPage(request, response, next);
    return overviewing.portfolio(
      summaries.map(({ id }) => id),
      signal,
    );
  },
  search: ({ query }, { overviewing }) => overviewing.search(query.text, query.most),
  traceId: ({ query }, { overviewing }) => overviewing.trace(query.id),
} satisfies Partial<Handlers>;
