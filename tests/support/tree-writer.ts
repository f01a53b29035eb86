import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { build } from 'esbuild';
import { root } from './trees.js';

/** A process that writes edits into a tree. */
export interface TreeWriter {
  /** Resolves when it is about to begin. */
  ready: Promise<void>;
  ended: Promise<{ code: number | null; err: string }>;
  kill(): void;
}

/** Builds a program that writes edits: `node FILE TREE EDITS HOME [DIE_AT]`, which kills itself before a file. */
export async function buildTreeWriter(folder: string): Promise<string> {
  const outfile = join(folder, 'writer.cjs');
  await build({
    stdin: {
      contents: `
        import { readFileSync } from 'node:fs';
        import { TreeWrites } from ${JSON.stringify(join(root, 'src/disk/writes/tree-writes.ts'))};
        const [tree, edits, home, dieAt] = process.argv.slice(2);
        process.stdout.write('ready');
        const note = { title: 'kelp', what: 'wire', at: '2026-11-02T09:00:00.000Z' };
        const progress = (_: string, done: number) => {
          if (String(done) === dieAt) process.kill(process.pid, 'SIGKILL');
        };
        new TreeWrites(home).apply(tree, JSON.parse(readFileSync(edits, 'utf8')), note, { progress }).then(
          () => process.exit(0),
          (error) => { process.stderr.write(String(error.code ?? error.message)); process.exit(7); },
        );`,
      resolveDir: root,
      loader: 'ts',
    },
    bundle: true,
    platform: 'node',
    format: 'cjs',
    outfile,
    external: ['better-sqlite3'],
    define: { 'import.meta.url': 'bundleUrl' },
    // It lies in a folder of its own, and finds its packages from here.
    banner: {
      js: `const here=${JSON.stringify(join(root, 'package.json'))};require=require('node:module').createRequire(here);const bundleUrl=require('node:url').pathToFileURL(here).href;`,
    },
    logLevel: 'error',
  });
  return outfile;
}

/** Starts a program and follows it. */
export function startWriter(command: string, args: readonly string[]): TreeWriter {
  const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'] });
  let err = '';
  child.stderr.setEncoding('utf8').on('data', (chunk: string) => (err += chunk));
  return {
    ended: new Promise((resolve) => child.on('close', (code) => resolve({ code, err }))),
    ready: new Promise((resolve) => child.stdout.once('data', () => resolve())),
    kill: () => void child.kill('SIGKILL'),
  };
}
