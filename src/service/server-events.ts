import type { Response } from 'express';
import type { OnProgress } from '../core/text/progress.js';
import type { ServiceContext } from './context.js';
import { failureOf } from './problem-handler.js';
import { CallerGoneError, eventStream, heartbeat } from './route.js';

/** How long (ms) a caller should wait before it reopens a broken stream. */
const retry = 3_000;
/** An open stream of server-sent events. */
export interface EventStream {
  /** @param id what a caller names as the last that it saw when it opens the stream again */
  send(event: string, data: unknown, id?: string): void;
  end(): void;
}

/** Opens a stream of server-sent events. Problems are cleaned of secrets as elsewhere. */
export function startEvents(response: Response, { secrets }: Pick<ServiceContext, 'secrets'>): EventStream {
  response
    .status(200)
    .set({ 'Content-Type': eventStream, 'Cache-Control': 'no-store', Connection: 'keep-alive' });
  response.flushHeaders();
  response.write(`retry: ${retry}\n\n`);
  const beat = setInterval(() => response.write(': still here\n\n'), heartbeat).unref();
  response.on('close', () => clearInterval(beat));
  return {
    send(event, data, id) {
      const text = JSON.stringify(data);
      const named = id === undefined ? '' : `id: ${id}\n`;
      response.write(
        `${named}event: ${event}\ndata: ${event === 'problem' ? secrets.cleaner()(text) : text}\n\n`,
      );
    },
    end: () => void response.end(),
  };
}

/** A call that is answered with progress when its caller requires events. */
export interface ProgressCall {
  /** The media type that the caller requires. */
  form: string;
  response: Response;
  /** The name of the event that carries the answer. */
  name: string;
}

/** Answers with JSON, or with events of progress and then the answer when the caller requires events. */
export async function withProgress<Answer>(
  context: ServiceContext,
  { form, response, name }: ProgressCall,
  work: (progress: OnProgress) => Promise<Answer>,
): Promise<Answer | undefined> {
  if (form !== eventStream) return work(() => undefined);
  const stream = startEvents(response, context);
  try {
    stream.send(name, await work((step) => stream.send('progress', step)));
  } catch (error) {
    if (error instanceof CallerGoneError) return undefined;
    stream.send('problem', failureOf(error, context).toProblem());
  }
  stream.end();
  return undefined;
}
