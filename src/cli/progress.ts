import type { OnProgress } from '../core/text/progress.js';
import type { CallOptions } from '../api/call.js';
import type { AnswerOf, RouteName } from '../api/routes.js';
import type { Client } from './client.js';
import type { Io } from './io.js';

/** A line of progress on a terminal; silent elsewhere. */
export interface ProgressLine {
  step: OnProgress;
  end(): void;
}

/** Shows progress on standard error, when that is a terminal. */
export function startProgress(io: Io, doing: string): ProgressLine {
  if (!io.interactive) return { step: () => undefined, end: () => undefined };
  const draw = io.status;
  draw(`… ${doing}`);
  return {
    step({ doing: what, done, total }) {
      const width = 24;
      const filled = Math.round((done / total) * width);
      draw(
        total > 0
          ? `${'━'.repeat(filled)}${'─'.repeat(width - filled)} ${what} ${done}/${total}`
          : `… ${what}`,
      );
    },
    end() {
      draw('');
    },
  };
}

/** Makes a call; at a terminal, a line says how far it has come. */
export async function callFollowed<Name extends RouteName>(
  io: Io,
  client: Client,
  name: Name,
  options: CallOptions<Name>,
  doing: string,
): Promise<AnswerOf<Name>> {
  if (!io.interactive) return client.call(name, options);
  const progress = startProgress(io, doing);
  try {
    return await client.follow(name, options, progress.step);
  } finally {
    progress.end();
  }
}
