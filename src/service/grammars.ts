import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { setFlagsFromString } from 'node:v8';
import { GrammarMissingError, loadGrammars, type SyntaxLanguage } from '../core/syntax/grammars.js';

// Grammars are few very large functions. Compiling them a second time, for speed, takes seconds in the background
// and holds a process up that wants to end; files are small, and the first compilation serves them well.
setFlagsFromString('--no-wasm-dynamic-tiering');
setFlagsFromString('--no-wasm-tier-up');

/** Makes languages ready to be read by syntax tree. */
export async function readyGrammars(languages: Iterable<SyntaxLanguage>): Promise<void> {
  await loadGrammars(languages, readGrammar);
}

/**
 * Does work that touches nothing but its input. Where it meets a language that is not ready, that is made so, with all
 * others that it is likely to meet, and it begins anew: often it meets none, and grammars take long to be compiled.
 */
export async function withGrammars<Result>(
  work: () => Result,
  likely: () => Iterable<SyntaxLanguage> = () => [],
): Promise<Result> {
  for (;;) {
    try {
      return work();
    } catch (error) {
      if (!(error instanceof GrammarMissingError)) throw error;
      await readyGrammars([error.language, ...likely()]);
    }
  }
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
