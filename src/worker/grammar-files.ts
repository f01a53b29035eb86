import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { setFlagsFromString } from 'node:v8';

// Grammars are few very large functions. V8's optimising compiler takes seconds for them in the background, and
// keeps a process from ending meanwhile. The files that are parsed are small, so the first compilation is enough.
setFlagsFromString('--no-wasm-dynamic-tiering');
setFlagsFromString('--no-wasm-tier-up');

/** Reads a grammar: beside the built service, or where the packages keep it. */
export async function readGrammar(file: string): Promise<Uint8Array> {
  const made = join(dirname(fileURLToPath(import.meta.url)), '..', 'grammars', file);
  if (existsSync(made)) return readFile(made);
  const { resolve } = createRequire(import.meta.url);
  const folder =
    file === 'tree-sitter.wasm'
      ? dirname(resolve('web-tree-sitter'))
      : join(dirname(resolve('tree-sitter-wasms/package.json')), 'out');
  return readFile(join(folder, file));
}
