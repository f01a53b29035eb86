import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import type { Command } from 'commander';
import { expect, it } from 'vitest';
import { paintFor } from '../../src/cli/io.js';
import { buildProgram } from '../../src/cli/program.js';
import { settingNames } from '../../src/core/words/names.js';
import { Settings } from '../../src/core/words/settings.js';
import { recorder } from '../support/recorder.js';
import { root } from '../support/titles.js';

const program = buildProgram(recorder(), paintFor(false), { code: 0 });

/** Texts that tell people what to type: messages in the code, and the pages that are written by hand. */
function texts(): string[] {
  const found = ['README.md', 'CONTRIBUTING.md', 'docs/guide.md', 'docs/lists.md', 'docs/profiles.md'];
  const walk = (folder: string) => {
    for (const entry of readdirSync(join(root, folder), { withFileTypes: true })) {
      const path = `${folder}/${entry.name}`;
      if (entry.isDirectory()) walk(path);
      else if (/\.tsx?$/.test(path)) found.push(path);
    }
  };
  walk('src');
  return found.map((path) => join(root, path));
}

/** What a text says after `syndexa`, up to the end of the sentence or of the quotation. */
const typed = /(?<!_describe )\bsyndexa ((?:[a-z][a-z-]*)(?: (?:--?)?[\w{}$<>[\]."/=:@#…-]+)*)/g;

/** The command that words name, and the words after its name. */
function named(words: readonly string[]): { command: Command; path: string; rest: readonly string[] } {
  let [command, at]: [Command, number] = [program, 0];
  for (;;) {
    const next = command.commands.find((sub) => sub.name() === words[at]);
    if (!next) break;
    [command, at] = [next, at + 1];
  }
  return { command, path: words.slice(0, at).join(' '), rest: words.slice(at) };
}

it('what people are told to type names commands and options that exist', () => {
  const faults: string[] = [];
  let seen = 0;
  for (const path of texts())
    for (const [whole, after = ''] of readFileSync(path, 'utf8').matchAll(typed)) {
      // Up to the end of the sentence.
      const words = (after.split('. ', 1)[0] ?? '').split(' ');
      const { command, path: name, rest } = named(words);
      const where = `${relative(root, path)}: ${whole}`;
      seen++;
      if (command === program) faults.push(`${where}: there is no such command`);
      else if (command.commands.length > 0 && rest.length > 0 && /^[a-z-]+$/.test(rest[0] ?? ''))
        faults.push(`${where}: there is no ${name} ${rest[0]}`);
      for (const word of rest) {
        const [, option] = /^(--?[a-z][a-z-]*)/.exec(word) ?? [];
        if (option && !command.options.some(({ long, short }) => long === option || short === option))
          faults.push(`${where}: ${name} has no ${option}`);
      }
    }
  expect(faults).toEqual([]);
  expect(seen).toBeGreaterThan(150);
});

it('every setting of a placement can be taken out', () => {
  expect([...settingNames].sort()).toEqual(Object.keys(Settings.shape).sort());
});
