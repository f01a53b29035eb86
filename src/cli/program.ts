import { valueAt } from '../core/text/own-values.js';
import { Command, CommanderError, InvalidArgumentError } from 'commander';
import { examples } from './examples.js';
import { helpCommands } from './groups/help.js';
import { idCommands } from './groups/ids.js';
import { networkCommands } from './groups/networks.js';
import { partnerCommands } from './groups/partner.js';
import { rehearsalCommands } from './groups/rehearsals.js';
import { rosterCommands } from './groups/roster.js';
import { serviceCommands } from './groups/service.js';
import { standardCommands } from './groups/standards.js';
import { tallyCommands } from './groups/tallies.js';
import { tagCommands } from './groups/tags.js';
import { titleCommands } from './groups/titles.js';
import { treeCommands } from './groups/trees.js';
import { commandProblem, internalProblem } from '../api/faults.js';
import type { Problem } from '../api/problem.js';
import { storageFailure } from '../disk/storage-failure.js';
import { homeFolder } from './connect.js';
import { CommandError, exit, isCommandError, type Io, type Paint, printJson } from './io.js';
import { version } from './version.js';

/** What a run of the program came to. */
interface Outcome {
  code: number;
}

/** Every group of commands, in the order in which help lists them. */
const groups = [
  treeCommands,
  rehearsalCommands,
  tallyCommands,
  titleCommands,
  idCommands,
  rosterCommands,
  networkCommands,
  partnerCommands,
  standardCommands,
  tagCommands,
  serviceCommands,
  helpCommands,
];

/**
 * Runs the program with its arguments and returns the exit code: 0 clean, 1 findings, 2 wrong use or
 * unreadable input, 3 service not reachable, 4 refused. It never ends the process.
 */
export async function run(args: readonly string[], io: Io, paint: Paint): Promise<number> {
  const outcome: Outcome = { code: exit.clean };
  const program = buildProgram(io, paint, outcome);
  try {
    await program.parseAsync(args, { from: 'user' });
    return outcome.code;
  } catch (error) {
    const asJson = wantsJson(args);
    if (error instanceof CommanderError) {
      if (error.exitCode === 0) return exit.clean;
      if (asJson) printProblem(io, commandProblem(exit.wrongUse, error.message.replace(/^error: /, '')));
      return exit.wrongUse;
    }
    const failure = asCommandError(error, io);
    if (!failure) {
      if (asJson) printProblem(io, internalProblem());
      throw error;
    }
    const { message, details, fix, code } = failure;
    if (asJson) printProblem(io, problemIn(error) ?? commandProblem(code, message, fix, details));
    io.err(
      `${paint.red('■')} ${message}\n${details.map((line) => `    ${line}\n`).join('')}${fix ? `  ${fix}\n` : ''}`,
    );
    return code;
  }
}

/** Whether any option of a command requests a single JSON document. */
function wantsJson(args: readonly string[]): boolean {
  return args.some(
    (word, at) =>
      word === '--json' || word === '--format=json' || (word === '--format' && args[at + 1] === 'json'),
  );
}

function printProblem(io: Io, problem: Problem): void {
  printJson(io, problem);
}

/** The problem that the service answered with. */
function problemIn(error: unknown): Problem | undefined {
  return error instanceof Error && 'problem' in error ? (error.problem as Problem) : undefined;
}

/** An error that is for the person who ran the command; undefined for one of our own. */
function asCommandError(error: unknown, io: Io): CommandError | undefined {
  if (isCommandError(error)) return error;
  if (error instanceof Error && error.name === 'SettingError' && 'fix' in error)
    return new CommandError(error.message, exit.wrongUse, String(error.fix));
  const storage = storageFailure(error, homeFolder(io.env));
  return storage ? new CommandError(storage.message, exit.wrongUse, storage.fix) : undefined;
}

/** Every command, to be parsed once. */
export function buildProgram(io: Io, paint: Paint, outcome: Outcome): Command {
  const program = new Command('syndexa')
    .description('The record of a title’s advertising IDs, and the engine that keeps every build true to it.')
    .version(version)
    .showHelpAfterError('Run it with --help for its usage.')
    .exitOverride()
    .configureOutput({
      writeOut: io.out,
      writeErr: io.err,
      getOutHelpWidth: () => Math.min(io.columns, 80),
      getErrHelpWidth: () => Math.min(io.columns, 80),
    })
    .configureHelp({ minWidthToWrap: 24 });
  const end = (work: Promise<number>) => work.then((code) => void (outcome.code = code));
  const whole = () => buildProgram(io, paint, { code: exit.clean });
  for (const add of groups) add(program, { io, paint, end, whole, run: (args, io) => run(args, io, paint) });
  demandArguments(program);
  addExamples(program, '');
  program.addHelpText('after', environmentHelp);
  return program;
}

/** Refuses empty arguments: a script with an unset variable would work on the wrong thing. */
function demandArguments(command: Command): void {
  for (const argument of command.registeredArguments) {
    if (argument.parseArg) continue;
    const notEmpty = (value: string, previous: unknown) => {
      if (value.trim() === '') throw new InvalidArgumentError('It is empty.');
      return argument.variadic ? [...((previous as string[] | undefined) ?? []), value] : value;
    };
    if (command.name() !== 'complete') argument.argParser(notEmpty);
  }
  for (const sub of command.commands) demandArguments(sub);
}

const environmentHelp = `
Environment:
  SYNDEXA_HOME   the data folder (default: ~/.local/share/syndexa)
  SYNDEXA_URL    the service to use (default: the running one, or a temporary one)
  SYNDEXA_TOKEN  a token, for a service that requires one
  NO_COLOR       any value turns colours off
  FORCE_COLOR    1 turns colours on, even in a pipe or a file
  COLUMNS        the line width in a pipe or a file (default: 80)
Limits can be changed too; the guide has a table of them.
`;

/** Adds to each command's help the example that belongs to it. */
function addExamples(command: Command, path: string): void {
  for (const sub of command.commands) {
    const name = `${path} ${sub.name()}`.trim();
    const lines = valueAt(examples, name);
    if (lines) sub.addHelpText('after', `\nExample, on the demo:\n${lines.map(foldCommand).join('\n')}\n`);
    addExamples(sub, name);
  }
}

/** A command in lines of at most 80 characters, as a shell takes them. */
function foldCommand(line: string): string {
  const lines: string[] = [];
  let now = ' ';
  // An option stays with its value.
  for (const part of line.split(/ (?=-)| (?=>)/)) {
    if (now.length + part.length + 3 > 80) {
      lines.push(`${now} \\`);
      now = '     ';
    }
    now += ` ${part}`;
  }
  return [...lines, now].join('\n');
}
