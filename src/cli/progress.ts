import type { Io } from './io.js';

/** A line of progress on a terminal; silent elsewhere. */
export interface Progress {
  step(doing: string, done: number, total: number): void;
  end(): void;
}

/** Shows progress on standard error, when that is a terminal. */
export function startProgress(io: Io, doing: string): Progress {
  if (!io.interactive) return { step: () => undefined, end: () => undefined };
  const draw = io.status;
  draw(`… ${doing}`);
  return {
    step(what, done, total) {
      const width = 24;
      const filled = total > 0 ? Math.round((done / total) * width) : width;
      draw(
        `${'━'.repeat(filled)}${'─'.repeat(width - filled)} ${what}${total > 0 ? ` ${done}/${total}` : ''}`,
      );
    },
    end() {
      draw('');
    },
  };
}

/** Draws the progress events of a call; what is no such event is skipped. */
export function stepped(progress: Progress): (data: unknown) => void {
  return (data) => {
    const { doing, done, total } = (data ?? {}) as { doing?: unknown; done?: unknown; total?: unknown };
    if (typeof doing === 'string' && typeof done === 'number' && typeof total === 'number')
      progress.step(doing, done, total);
  };
}
