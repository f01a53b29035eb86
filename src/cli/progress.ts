import type { Io } from './io.js';

/** A line of progress on a terminal; silent elsewhere. */
export interface Progress {
  step(doing: string, done: number, total: number): void;
  /** How far the reading of a tree has come, in files. */
  reading(seen: number, read: number): void;
  end(): void;
}

/** Shows progress on standard error, when that is a terminal. */
export function startProgress(io: Io, doing: string): Progress {
  if (!io.interactive) return { step: () => undefined, reading: () => undefined, end: () => undefined };
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
    reading(seen, read) {
      draw(`… ${doing}: ${counted(seen)} seen, ${counted(read)} read`);
    },
    end() {
      draw('');
    },
  };
}

function counted(files: number): string {
  return `${files.toLocaleString('en')} ${files === 1 ? 'file' : 'files'}`;
}

/** Draws the progress events of a call; what is no such event is skipped. */
export function stepped(progress: Progress): (data: unknown) => void {
  return (data) => {
    const { doing, done, total, seen, read } = (data ?? {}) as Record<string, unknown>;
    if (typeof doing === 'string' && typeof done === 'number' && typeof total === 'number')
      progress.step(doing, done, total);
    else if (typeof seen === 'number' && typeof read === 'number') progress.reading(seen, read);
  };
}

/** Follows a call whose events say how far it has come. */
export async function followed<Result>(
  io: Io,
  doing: string,
  call: (progress: (data: unknown) => void) => Promise<Result>,
): Promise<Result> {
  const progress = startProgress(io, doing);
  try {
    return await call(stepped(progress));
  } finally {
    progress.end();
  }
}
