import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { paintFor, type Io } from '../../src/cli/io.js';
import { hasColours, outgoing } from '../../src/cli/paint.js';
import { run } from '../../src/cli/program.js';
import { root } from './trees.js';

export interface CliResult {
  code: number;
  out: string;
  err: string;
}

interface CliOptions {
  cwd?: string;
  env?: Record<string, string>;
  input?: string;
}

/** Runs the client in this process, with an output, an input and an environment of its own. */
export async function syndexa(
  args: readonly string[],
  home: string,
  { cwd = home, env, input = '' }: CliOptions = {},
): Promise<CliResult> {
  let out = '';
  let err = '';
  const printed = (text: string) => void (out += outgoing(text));
  const io: Io = {
    out: printed,
    prose: printed,
    raw: (text) => void (out += text),
    err: (text) => void (err += outgoing(text)),
    status: () => undefined,
    input: () => Promise.resolve(Buffer.from(input)),
    ask: () => Promise.resolve(null),
    interactive: false,
    read: false,
    width: 80,
    columns: 80,
    cwd,
    env: environment(home, env),
  };
  const code = await run(args, io, paintFor(hasColours(io.env, false)));
  return { code, out, err };
}

/** Runs `bin/syndexa` as a process of its own: the bundle, as people start it. */
export function syndexaProcess(
  args: readonly string[],
  home: string,
  { cwd = home, env, input = '' }: CliOptions = {},
): Promise<CliResult> {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [join(root, 'bin', 'syndexa'), ...args], {
      cwd,
      env: environment(home, env),
      stdio: ['pipe', 'pipe', 'pipe'],
    });
    let out = '';
    let err = '';
    child.stdout.setEncoding('utf8').on('data', (chunk: string) => (out += chunk));
    child.stderr.setEncoding('utf8').on('data', (chunk: string) => (err += chunk));
    child.on('error', reject);
    child.on('close', (code) => resolve({ code: code ?? -1, out, err }));
    child.stdin.end(input);
  });
}

function environment(home: string, env: Record<string, string> = {}): Record<string, string | undefined> {
  const { SYNDEXA_URL: _, ...inherited } = process.env;
  return { ...inherited, SYNDEXA_HOME: home, NO_COLOR: '1', ...env };
}
