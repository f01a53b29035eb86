import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { root } from './trees.js';

export interface CliResult {
  code: number;
  out: string;
  err: string;
}

/** Runs `bin/syndexa` as a process of its own. */
export function syndexa(
  args: readonly string[],
  home: string,
  options: { cwd?: string; env?: Record<string, string>; input?: string } = {},
): Promise<CliResult> {
  return new Promise((resolve, reject) => {
    const { SYNDEXA_URL: _, ...inherited } = process.env;
    const child = spawn(process.execPath, [join(root, 'bin', 'syndexa'), ...args], {
      cwd: options.cwd ?? home,
      env: { ...inherited, SYNDEXA_HOME: home, NO_COLOR: '1', ...options.env },
      stdio: ['pipe', 'pipe', 'pipe'],
    });
    let out = '';
    let err = '';
    child.stdout.setEncoding('utf8').on('data', (chunk: string) => (out += chunk));
    child.stderr.setEncoding('utf8').on('data', (chunk: string) => (err += chunk));
    child.on('error', reject);
    child.on('close', (code) => resolve({ code: code ?? -1, out, err }));
    child.stdin.end(options.input ?? '');
  });
}
