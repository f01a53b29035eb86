import { skipToken, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { OnProgress, Progress } from '../core/text/progress.js';
import type { CallOptions } from '../api/call.js';
import type { AnswerOf, RouteName } from '../api/routes.js';
import type { CallError } from './api.js';
import { follow } from './long-call.js';
import { ask, keys, type Answer } from './queries.js';

// What is asked of a tree: work that may take long.

/** What a snapshot is asked: the same question of the same snapshot and version is asked once. */
export interface Question {
  snapshot: string;
  title: string;
  version: number;
}

/** An answer that may take long: how far it is until then, and what ends it. */
export type LongAnswer<Name extends RouteName> = Answer<Name> & {
  progress: Progress | null;
  cancel: () => void;
};

/** Loads the result of a call with progress. Nothing is loaded without `ask`. */
function useLongQuery<Name extends RouteName>(
  queryKey: readonly unknown[],
  ask: ((signal: AbortSignal, progress: OnProgress) => Promise<AnswerOf<Name>>) | undefined,
  placeholderData?: (before: unknown, asked: { queryKey: readonly unknown[] } | undefined) => unknown,
): LongAnswer<Name> {
  const client = useQueryClient();
  const [progress, setProgress] = useState<Progress | null>(null);
  const answer = useQuery<AnswerOf<Name>, CallError>({
    queryKey,
    queryFn: ask ? ({ signal }) => ask(signal, setProgress) : skipToken,
    staleTime: Infinity,
    placeholderData: placeholderData as never,
  });
  return { ...answer, progress, cancel: () => void client.cancelQueries({ queryKey }) };
}

function useWork<Name extends 'survey' | 'check' | 'wire'>(
  name: Name,
  question: Question | undefined,
): LongAnswer<Name> {
  const options = question && { params: { snapshot: question.snapshot }, body: { title: question.title } };
  return useLongQuery<Name>(
    question ? keys.work(name, question.snapshot, question.title, question.version) : ['work', name],
    options &&
      ((signal, progress) => follow(name, options as unknown as CallOptions<Name>, signal, progress)),
    // Until the new reading is looked into, the one before stays on the page, which says that it is behind.
    (before, asked) => (asked?.queryKey[3] === question?.title ? before : undefined),
  );
}

export const useSurvey = (question: Question | undefined): LongAnswer<'survey'> =>
  useWork('survey', question);
export const useCheck = (question: Question | undefined): LongAnswer<'check'> => useWork('check', question);
export const useWiring = (question: Question | undefined): LongAnswer<'wire'> => useWork('wire', question);

/** Some groups of a wiring, computed on their own; nothing is asked while all of them are wanted. */
export const useWiringPart = (question: Question, groups: readonly string[] | null): Answer<'wire'> =>
  useQuery({
    queryKey: keys.part(question.snapshot, question.title, question.version, groups ?? []),
    queryFn:
      groups === null
        ? skipToken
        : ask('wire', {
            params: { snapshot: question.snapshot },
            body: { title: question.title, choice: { groups: [...groups] } },
          }),
    staleTime: Infinity,
  });

/** A snapshot that is rehearsed, and for which platforms. */
export interface ToRehearse {
  snapshot: string;
  platforms: ('android' | 'ios')[];
}

/** What is rehearsed how; the same is rehearsed once. */
export interface RehearsalSettings {
  title: string;
  scenario: string;
  seed: number;
  fault: 'none' | 'offline' | 'no-fill' | 'slow';
}

/** A rehearsal of the trees of a title, one after another, put together. */
export function useRehearsal(
  trees: readonly ToRehearse[] | undefined,
  { title, scenario, seed, fault }: RehearsalSettings,
): LongAnswer<'rehearse'> {
  const faults = { offline: fault === 'offline', noFill: fault === 'no-fill', slow: fault === 'slow' };
  const rehearse = async (signal: AbortSignal, progress: OnProgress) => {
    const reports = [];
    for (const { snapshot, platforms } of trees ?? []) {
      const body = { title, scenario: { name: scenario }, seed, platforms, ...faults, trace: true };
      reports.push(await follow('rehearse', { params: { snapshot }, body }, signal, progress));
    }
    const [first, ...others] = reports;
    if (!first) throw new Error('There is no tree to rehearse.');
    return {
      ...first,
      runs: reports.flatMap(({ runs }) => runs),
      findings: reports.flatMap(({ findings }) => findings),
      clean: first.clean && others.every(({ clean }) => clean),
    };
  };
  return useLongQuery<'rehearse'>(
    [...keys.rehearsal(title), trees, scenario, seed, fault],
    trees && rehearse,
  );
}
