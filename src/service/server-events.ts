import type { Request, Response } from 'express';
import type { ServiceContext } from './context.js';
import { ServiceError } from './errors.js';

/** Opens a stream of server-sent events; returns what sends one. Problems are cleaned of secrets as elsewhere. */
export function startEvents(
  response: Response,
  { secrets }: Pick<ServiceContext, 'secrets'>,
): (event: string, data: unknown) => void {
  response
    .status(200)
    .set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', Connection: 'keep-alive' });
  response.flushHeaders();
  return (event, data) => {
    const text = JSON.stringify(data);
    response.write(`event: ${event}\ndata: ${event === 'problem' ? secrets.cleaner()(text) : text}\n\n`);
  };
}

/** A call that is answered with progress when its caller asks for events. */
export interface ProgressCall {
  request: Request;
  response: Response;
  /** The name of the event that carries the answer. */
  name: string;
}

/** Answers with JSON, or with events of progress and then the answer when the caller asks for events. */
export async function withProgress<Step, Answer>(
  context: ServiceContext,
  { request, response, name }: ProgressCall,
  work: (progress: (step: Step) => void) => Promise<Answer>,
): Promise<Answer | undefined> {
  if (request.headers.accept !== 'text/event-stream') return work(() => undefined);
  const send = startEvents(response, context);
  try {
    send(name, await work((step) => send('progress', step)));
  } catch (error) {
    if (!(error instanceof ServiceError)) throw error;
    send('problem', error.toProblem());
  }
  response.end();
  return undefined;
}
