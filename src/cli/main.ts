import { paintFor, type Io } from './io.js';
import { foldLines } from './render/fold.js';
import { hasColours, outgoing } from './paint.js';
import { run } from './program.js';

// The only file that touches the process: everything else is handed its input and output.

// Standard input is opened where it is read: that takes a while, and few commands do.
const { stdout, stderr, env } = process;

/** Lines of a pipe or a file are as long as those of the usual terminal, or as COLUMNS says. */
const columns = stdout.columns ?? (Number(env.COLUMNS) || 80);

const io: Io = {
  out: (text) => void stdout.write(outgoing(text)),
  prose: (text) => void stdout.write(outgoing(stdout.isTTY ? foldLines(text, columns) : text)),
  err: (text) => void stderr.write(outgoing(text)),
  raw: (text) => void stdout.write(text),
  status: (line) => void stderr.write(`\r\u001b[2K${outgoing(line)}`),
  async input() {
    const chunks: Buffer[] = [];
    for await (const chunk of process.stdin) chunks.push(chunk as Buffer);
    return Buffer.concat(chunks);
  },
  async ask(question) {
    if (!process.stdin.isTTY) return null;
    const { createInterface } = await import('node:readline/promises');
    const prompt = createInterface({ input: process.stdin, output: stderr });
    try {
      return await prompt.question(outgoing(question));
    } finally {
      prompt.close();
    }
  },
  interactive: stderr.isTTY && env.CI === undefined,
  read: stdout.isTTY,
  width: Math.min(Math.max(columns, 60), 120),
  columns,
  cwd: process.cwd(),
  env,
};

// A reader that stops early, such as `head`, is no failure. An output that cannot be written, such as a full disk, is one.
stdout.on('error', ({ code, message }: NodeJS.ErrnoException) => {
  if (code === 'EPIPE') return;
  stderr.write(`■ The output cannot be written: ${message}.\n`);
  process.exitCode = 2;
});
// Nobody can be determined.
stderr.on('error', () => undefined);

void run(process.argv.slice(2), io, paintFor(hasColours(env, stdout.isTTY)))
  .catch((error: unknown) => {
    stderr.write(
      `■ Syndexa had an internal error: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`,
    );
    return 3;
  })
  .then(async (code) => {
    process.exitCode = Math.max(code, Number(process.exitCode ?? 0));
    await Promise.all([written(stdout), written(stderr)]);
    // The work is done; what the engine has begun to tidy up in the background is not waited for.
    process.exit();
  });

/** Waits until all that was written has gone out; a reader that is gone waits for nothing. */
function written(stream: NodeJS.WriteStream): Promise<void> {
  return new Promise((resolve) => {
    if (!stream.writable) resolve();
    else stream.write('', () => resolve());
  });
}
