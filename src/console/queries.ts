import {
  type InfiniteData,
  keepPreviousData,
  skipToken,
  useInfiniteQuery,
  useQuery,
  type UseQueryResult,
} from '@tanstack/react-query';
import { useEffect, useMemo } from 'react';
import type { CompletionSchema } from '../core/formats/yaml/complete.js';
import type { CallOptions } from '../api/call.js';
import type { AnswerOf, PagedRoute, QueryOf, RouteName } from '../api/routes.js';
import { call, callAll, callPage, type CallError, type Page } from './api.js';

/** One key per query, so that changed data can be loaded again. */
export const keys = {
  session: ['session'] as const,
  titles: ['titles'] as const,
  portfolio: ['portfolio'] as const,
  trace: (id: string) => ['trace', id] as const,
  rules: ['rules'] as const,
  title: (id: string) => ['title', id] as const,
  board: (id: string) => ['board', id] as const,
  steps: (id: string) => ['steps', id] as const,
  trees: ['trees'] as const,
  scenarios: ['scenarios'] as const,
  tally: ['tally'] as const,
  rehearsal: (title: string) => ['rehearsal', title] as const,
  networks: ['networks'] as const,
  network: (id: string) => ['network', id] as const,
  work: (what: string, snapshot: string, title: string, version: number) =>
    ['work', what, snapshot, title, version] as const,
  part: (snapshot: string, title: string, version: number, groups: readonly string[]) =>
    ['work', 'part', snapshot, title, version, ...groups] as const,
  writes: (tree: string) => ['writes', tree] as const,
  source: (snapshot: string, path: string, line: number) => ['source', snapshot, path, line] as const,
};

/** Asks by one call, which ends when nothing on the page waits for its answer any more. */
export const ask =
  <Name extends RouteName>(name: Name, options: CallOptions<Name> = {}) =>
  ({ signal }: { signal: AbortSignal }) =>
    call(name, { ...options, signal });

export type Answer<Name extends Parameters<typeof call>[0]> = UseQueryResult<AnswerOf<Name>, CallError>;

/** Who is signed in. Refetched when a call fails because the session ended. */
export const useSession = (): Answer<'session'> =>
  useQuery({ queryKey: keys.session, queryFn: ask('session') });

export const useTitles = (): Answer<'listTitles'> =>
  useQuery({ queryKey: keys.titles, queryFn: () => callAll('listTitles') });

/** A list that is answered in pages; the entries of those that were read so far. */
export function usePages<Name extends PagedRoute>(
  name: Name,
  key: readonly unknown[],
  options: CallOptions<Name>,
) {
  const found = useInfiniteQuery<
    Page<Name>,
    CallError,
    InfiniteData<Page<Name>>,
    readonly unknown[],
    number | undefined
  >({
    queryKey: key,
    queryFn: ({ pageParam }) => {
      const query = {
        ...(options.query as object),
        ...(pageParam === undefined ? {} : { after: pageParam }),
      };
      return callPage(name, { ...options, query } as CallOptions<Name>);
    },
    initialPageParam: undefined,
    getNextPageParam: ({ next }) => next,
  });
  const entries = useMemo(
    () => found.data?.pages.flatMap((page): unknown[] => page.entries) ?? [],
    [found.data],
  );
  return { ...found, entries: entries as unknown as AnswerOf<Name> };
}

/** The page size with which the first titles appear within a second. */
const titlesAtOnce = 250;

/** All titles in short, page after page: the first ones are shown while the others are read. */
export function usePortfolio() {
  const found = usePages('portfolio', keys.portfolio, { query: { limit: titlesAtOnce } });
  const { hasNextPage, isFetching, error, fetchNextPage } = found;
  useEffect(() => {
    if (hasNextPage && !isFetching && !error) void fetchNextPage();
  }, [hasNextPage, isFetching, error, fetchNextPage]);
  return found;
}

export const useImports = (): Answer<'listImports'> =>
  useQuery({ queryKey: [...keys.tally, 'imports'], queryFn: ask('listImports') });

export const useTrace = (id: string): Answer<'traceId'> =>
  useQuery({ queryKey: keys.trace(id), queryFn: ask('traceId', { query: { id } }) });

export const useRules = (): Answer<'listRules'> =>
  useQuery({ queryKey: keys.rules, queryFn: ask('listRules'), staleTime: Infinity });

/** What has a text in its name or ID. While the next answer is under way, the last one is shown. */
export const useSearch = (text: string): Answer<'search'> =>
  useQuery({
    queryKey: ['search', text],
    queryFn: text === '' ? skipToken : ask('search', { query: { text } }),
    placeholderData: keepPreviousData,
  });

export const useTitle = (title: string): Answer<'showTitle'> =>
  useQuery({
    queryKey: keys.title(title),
    queryFn: title === '' ? skipToken : ask('showTitle', { params: { title } }),
  });

export const useBoard = (title: string): Answer<'board'> =>
  useQuery({ queryKey: keys.board(title), queryFn: ask('board', { params: { title } }) });

export const useSteps = (title: string): Answer<'steps'> =>
  useQuery({ queryKey: keys.steps(title), queryFn: ask('steps', { params: { title } }) });

export const useTrees = (): Answer<'listTrees'> =>
  useQuery({ queryKey: keys.trees, queryFn: ask('listTrees') });

export const useNetworks = (): Answer<'listNetworks'> =>
  useQuery({ queryKey: keys.networks, queryFn: ask('listNetworks') });

export const useNetwork = (network: string): Answer<'showNetwork'> =>
  useQuery({
    queryKey: keys.network(network),
    queryFn: network === '' ? skipToken : ask('showNetwork', { params: { network } }),
  });

export const useScenarios = (): Answer<'listScenarios'> =>
  useQuery({ queryKey: keys.scenarios, queryFn: ask('listScenarios'), staleTime: Infinity });

/** Daily numbers: each question is asked once until something is imported. */
export const useFigures = (query: QueryOf<'figures'>): Answer<'figures'> =>
  useQuery({
    queryKey: [...keys.tally, 'figures', query],
    queryFn: ask('figures', { query }),
    placeholderData: keepPreviousData,
  });

export const useComparison = (query: QueryOf<'compareTally'> | undefined): Answer<'compareTally'> =>
  useQuery({
    queryKey: [...keys.tally, 'comparison', query],
    queryFn: query ? ask('compareTally', { query }) : skipToken,
    placeholderData: keepPreviousData,
  });

export const useSilence = (title: string | undefined): Answer<'silentTally'> =>
  useQuery({
    queryKey: [...keys.tally, 'silence', title],
    queryFn: ask('silentTally', { query: title === undefined ? {} : { title } }),
  });

export const useWeek = (title: string | undefined): Answer<'tallyWeek'> =>
  useQuery({
    queryKey: [...keys.tally, 'week', title],
    queryFn: ask('tallyWeek', { query: title === undefined ? {} : { title } }),
  });

export const useReleases = (title: string | undefined): Answer<'listReleases'> =>
  useQuery({
    queryKey: [...keys.tally, 'releases', title],
    queryFn: title === undefined ? skipToken : ask('listReleases', { params: { title } }),
  });

/** The writes into a linked tree that can be undone, latest first. */
export const useWrites = (tree: string | undefined): Answer<'listWrites'> =>
  useQuery({
    queryKey: keys.writes(tree ?? ''),
    queryFn: tree === undefined ? skipToken : ask('listWrites', { params: { tree } }),
  });

export const useSource = (snapshot: string, path: string, line: number): Answer<'source'> =>
  useQuery({
    queryKey: keys.source(snapshot, path, line),
    queryFn: ask('source', { params: { snapshot }, query: { path, line, around: 3 } }),
    staleTime: Infinity,
  });

/** The JSON Schema of profiles, from which their editor completes. */
export const useProfileSchema = (): UseQueryResult<CompletionSchema> =>
  useQuery({
    queryKey: ['schema', 'profile'],
    queryFn: async ({ signal }) =>
      (await fetch('/api/v1/schemas/profile', { signal })).json() as Promise<CompletionSchema>,
    staleTime: Infinity,
  });
