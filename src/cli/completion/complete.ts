import type { Command, Option } from 'commander';
import { withService } from '../connect.js';
import { exit, type Io } from '../io.js';
import { files } from './shells.js';

/** What a word may be: one of these words, a name of the record, a file, or something that only a person knows. */
type Wanted = { words: readonly Word[] } | 'titles' | 'networks' | 'files' | 'unknown';
interface Word {
  word: string;
  about: string;
}

/** `syndexa complete`: what the last word may be completed to, a line each. */
export async function complete(io: Io, program: Command, words: readonly string[]): Promise<number> {
  const current = words.at(-1) ?? '';
  const wanted = wantedAt(program, words.slice(0, -1), current);
  const found = typeof wanted === 'object' ? wanted.words : await named(io, wanted);
  for (const { word, about } of found)
    if (word.startsWith(current)) io.out(`${word}\t${about.replace(/\s+/g, ' ')}\n`);
  if (wanted === 'files') io.out(`${files}\n`);
  return exit.clean;
}

async function named(io: Io, wanted: Exclude<Wanted, object>): Promise<Word[]> {
  if (wanted !== 'titles' && wanted !== 'networks') return [];
  return withService(io, async (client) => {
    const all = await (wanted === 'titles' ? client.all('listTitles') : client.call('listNetworks'));
    return all.map(({ id, name }) => ({ word: id, about: name }));
  });
}

/** What the word after some words may be. */
export function wantedAt(program: Command, before: readonly string[], current: string): Wanted {
  if (before[0] === 'help')
    return wordsOf(before.slice(1).reduce((at, word) => childOf(at, word) ?? at, program));
  let command = program;
  let operands = 0;
  let open: Option | undefined;
  for (const word of before) {
    const option = word.startsWith('-') ? optionOf(command, word) : undefined;
    const child = operands === 0 ? childOf(command, word) : undefined;
    if (option) open = option.required || option.optional ? option : undefined;
    else if (open) open = open.variadic ? open : undefined;
    else if (child) command = child;
    else operands += 1;
  }
  if (current.startsWith('-')) return { words: optionsOf(command) };
  if (open) return byName(open.argChoices, open.long ?? '', open.flags);
  if (command.commands.length > 0) return wordsOf(command);
  const { registeredArguments: known } = command;
  const argument = known[operands] ?? (known.at(-1)?.variadic ? known.at(-1) : undefined);
  return argument ? byName(argument.argChoices, argument.name(), argument.description) : 'unknown';
}

function childOf(command: Command, word: string): Command | undefined {
  return command.commands.find((child) => child.name() === word);
}

function wordsOf(command: Command): Wanted {
  const shown = command.createHelp().visibleCommands(command);
  return { words: shown.map((child) => ({ word: child.name(), about: child.description() })) };
}

function optionOf(command: Command, word: string): Option | undefined {
  return command.options.find(({ long, short }) => long === word || short === word);
}

function optionsOf(command: Command): Word[] {
  return command
    .createHelp()
    .visibleOptions(command)
    .map(({ long, short, description }) => ({ word: long ?? short ?? '', about: description }));
}

/** By the name of an argument or an option, as the commands use them. */
function byName(choices: readonly string[] | undefined, name: string, about: string): Wanted {
  if (choices) return { words: choices.map((word) => ({ word, about: '' })) };
  const bare = name.replace(/^-+/, '');
  if (/^title(s|-id)?$/.test(bare)) return 'titles';
  if (/^networks?$/.test(bare)) return 'networks';
  if (/\b(dirs?|folder|files?|path)\b/i.test(`${bare} ${about}`)) return 'files';
  return 'unknown';
}
