import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { setFlagsFromString } from 'node:v8';
import { languagesOf } from '../../core/code/languages/index.js';
import { loadGrammars } from '../../core/syntax/grammars.js';

// Grammars are few very large functions. Compiling them a second time, for speed, takes seconds in the background
// and holds a process up that wants to end; files are small, and the first compilation serves them well.
setFlagsFromString('--no-wasm-dynamic-tiering');
setFlagsFromString('--no-wasm-tier-up');

/** Makes the languages of these files ready to be read by syntax tree. */
export async function readyGrammars(paths: readonly string[]): Promise<void> {
  await loadGrammars(languagesOf(paths), readGrammar);
}

/** A grammar's bytes: beside the built service, or where the packages keep them. */
async function readGrammar(file: string): Promise<Uint8Array> {
  const made = join(dirname(fileURLToPath(import.meta.url)), '..', 'grammars', file);
  if (existsSync(made)) return readFile(made);
  const { resolve } = createRequire(import.meta.url);
  const folder =
    file === 'tree-sitter.wasm'
      ? dirname(resolve('web-tree-sitter'))
      : join(dirname(resolve('tree-sitter-wasms/package.json')), 'out');
  return readFile(join(folder, file));
}
