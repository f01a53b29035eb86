export { paintFor, type Paint } from './paint.js';

/** What commands speak through: never the process itself. */
export interface Io {
  /** Standard output. */
  out: (text: string) => void;
  /** Sentences for people on standard output: at a terminal, lines that are too long for it are folded. */
  prose: (text: string) => void;
  /** Standard error: progress, warnings, what went wrong. */
  err: (text: string) => void;
  /** Content exactly as it is, such as a diff that is piped on to git. */
  raw: (text: string) => void;
  /** Draws a line on standard error in place of the one before; an empty one takes it away. */
  status: (line: string) => void;
  /** All of standard input. */
  input(): Promise<Uint8Array>;
  /** Asks a question on the terminal; null if there is no terminal. */
  ask(question: string): Promise<string | null>;
  /** Whether standard error is a terminal, so that progress may be drawn. */
  interactive: boolean;
  /** Whether standard output is a terminal: somebody reads it, and nothing is passed on. */
  read: boolean;
  /** Where running text is broken, in characters. */
  width: number;
  /** Width of the terminal, in characters. */
  columns: number;
  cwd: string;
  env: Readonly<Record<string, string | undefined>>;
}

/** Writes a document: printable for a person at a terminal, exactly as it is into a pipe or a file. */
export function writeDocument(io: Io, text: string): void {
  if (io.read) io.out(text);
  else io.raw(text);
}

/** Prints the one document of `--json`. */
export function printJson(io: Io, value: unknown): void {
  io.out(`${JSON.stringify(value, null, 2)}\n`);
}

/** Exit codes of every command. */
export const exit = { clean: 0, findings: 1, wrongUse: 2, unreachable: 3, refused: 4 } as const;

/** An expected failure: short, with what to do next, and the exit code that it means. */
export class CommandError extends Error {
  constructor(
    message: string,
    readonly code: number,
    readonly fix?: string,
    readonly details: readonly string[] = [],
  ) {
    super(message);
    this.name = 'CommandError';
  }
}

/** Whether an error is an expected failure; those of bundles that are loaded apart are of a class of their own. */
export function isCommandError(error: unknown): error is CommandError {
  return error instanceof CommandError || (error instanceof Error && 'details' in error && 'code' in error);
}
