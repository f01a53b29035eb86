import type { OnProgress } from '../core/text/progress.js';
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

/** Follows a call whose events say how far it has come. */
export async function followed<Result>(
  io: Io,
  doing: string,
  call: (progress: OnProgress) => Promise<Result>,
): Promise<Result> {
  const progress = startProgress(io, doing);
  try {
    return await call(progress.step);
  } finally {
    progress.end();
  }
}
