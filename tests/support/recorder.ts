import type { Io } from '../../src/cli/io.js';

/** What a command is run with in a test: what it prints is kept, and nobody answers its questions. */
export function recorder(options: Partial<Io> = {}): Io & { text: string; errors: string } {
  const io = {
    text: '',
    errors: '',
    out: (text: string) => void (io.text += text),
    prose: (text: string) => void (io.text += text),
    raw: (text: string) => void (io.text += text),
    err: (text: string) => void (io.errors += text),
    status: () => undefined,
    input: () => Promise.resolve(new Uint8Array()),
    ask: () => Promise.resolve(null),
    interactive: false,
    read: false,
    width: 80,
    columns: 80,
    cwd: '/',
    env: {},
    ...options,
  };
  return io;
}
