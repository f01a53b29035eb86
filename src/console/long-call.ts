import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { problemOf, requestOf, type CallOptions } from '../api/call.js';
import { parsePrintable } from '../core/text/printable.js';
import type { OnProgress, Progress } from '../core/text/progress.js';
import { AnswerEvents } from '../api/answer-events.js';
import type { AnswerOf, RouteName } from '../api/routes.js';
import { CallError, upload } from './api.js';

/** A long call: it reports progress and can be cancelled. */
export interface LongCall<Name extends RouteName> {
  run: (options: CallOptions<Name>) => Promise<AnswerOf<Name> | undefined>;
  cancel: () => void;
  reset: () => void;
  isPending: boolean;
  progress: Progress | null;
  answer: AnswerOf<Name> | undefined;
  error: CallError | null;
}

interface State<Name extends RouteName> {
  isPending: boolean;
  progress: Progress | null;
  answer: AnswerOf<Name> | undefined;
  error: CallError | null;
}

/** Makes a call that reports progress. When it ends, the page reloads its data; a call whose page was left is cancelled. */
export function useLongCall<Name extends RouteName>(name: Name): LongCall<Name> {
  return useLongWork(name, follow);
}

/** As {@link useLongCall}, for a call that sends a file. */
export function useUpload<Name extends RouteName>(
  name: Name,
  file: File | undefined,
  type: string,
): LongCall<Name> {
  return useLongWork(name, (_, options, signal, progress) => {
    if (!file) throw new Error('There is no file to send.');
    return upload(name, options, { file, type, progress, signal });
  });
}

/** How a long call is made. */
type Make<Name extends RouteName> = (
  name: Name,
  options: CallOptions<Name>,
  signal: AbortSignal,
  progress: OnProgress,
) => Promise<AnswerOf<Name>>;

function useLongWork<Name extends RouteName>(name: Name, make: Make<Name>): LongCall<Name> {
  const client = useQueryClient();
  const idle: State<Name> = { isPending: false, progress: null, answer: undefined, error: null };
  const [state, setState] = useState<State<Name>>(idle);
  const control = useRef<AbortController>(undefined);
  useEffect(() => () => control.current?.abort(), []);
  const run = async (options: CallOptions<Name>) => {
    const mine = new AbortController();
    control.current?.abort();
    control.current = mine;
    setState({ ...idle, isPending: true });
    try {
      const answer = await make(name, options, mine.signal, (progress) =>
        setState((now) => (control.current === mine ? { ...now, progress } : now)),
      );
      setState({ ...idle, answer });
      return answer;
    } catch (error) {
      if (mine.signal.aborted) return undefined;
      if (!(error instanceof CallError)) throw error;
      setState({ ...idle, error });
      return undefined;
    } finally {
      void client.invalidateQueries();
    }
  };
  const end = () => {
    control.current?.abort();
    setState(idle);
  };
  return { ...state, run, cancel: end, reset: end };
}

/**
 * A call answered as server-sent events: those of progress, then the answer or a problem.
 * @throws CallError
 */
export async function follow<Name extends RouteName>(
  name: Name,
  options: CallOptions<Name>,
  signal: AbortSignal,
  progress: OnProgress,
): Promise<AnswerOf<Name>> {
  const { path, headers, body, method } = requestOf(name, 'console', options);
  const events = new AnswerEvents(progress, parsePrintable);
  try {
    const response = await fetch(path, {
      method,
      headers: { ...headers, Accept: 'text/event-stream' },
      body: body ?? null,
      signal,
    });
    if (!response.ok)
      throw new CallError(problemOf(await response.json().catch(() => null), response.status));
    const decoder = new TextDecoder();
    const reader = response.body?.getReader();
    for (let part = await reader?.read(); part && !part.done; part = await reader?.read())
      events.feed(decoder.decode(part.value, { stream: true }));
  } catch (error) {
    if (error instanceof CallError || signal.aborted) throw error;
    throw cutShort();
  }
  if (events.problem) throw new CallError(events.problem);
  if (events.answer === undefined) throw cutShort();
  return events.answer as AnswerOf<Name>;
}

function cutShort(): CallError {
  return new CallError({
    type: 'about:blank',
    title: 'Cut short',
    status: 0,
    code: 'unreachable',
    detail: 'The service stopped in the middle of its answer.',
    fix: 'See what is shown now, and try again.',
  });
}
