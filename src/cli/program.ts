import { valueAt } from '../core/text/own-values.js';
import { Command, CommanderError } from 'commander';
import { examples } from './examples.js';
import { idCommands } from './groups/ids.js';
import { networkCommands } from './groups/networks.js';
import { partnerCommands } from './groups/partner.js';
import { rosterCommands } from './groups/roster.js';
import { serviceCommands } from './groups/service.js';
import { standardCommands } from './groups/standards.js';
import { titleCommands } from './groups/titles.js';
import { treeCommands } from './groups/trees.js';
import { exit, isCommandError, type Io, type Paint } from './io.js';
import { version } from './version.js';

/** What a run of the program came to. */
interface Outcome {
  code: number;
}

/** Every group of commands, in the order in which help lists them. */
const groups = [
  treeCommands,
  titleCommands,
  idCommands,
  rosterCommands,
  networkCommands,
  partnerCommands,
  standardCommands,
  serviceCommands,
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
    if (error instanceof CommanderError) return error.exitCode === 0 ? exit.clean : exit.wrongUse;
    if (isCommandError(error)) {
      io.err(
        `${paint.red('■')} ${error.message}\n${error.details.map((line) => `    ${line}\n`).join('')}${error.fix ? `  ${error.fix}\n` : ''}`,
      );
      return error.code;
    }
    throw error;
  }
}

/** Every command, to be parsed once. */
export function buildProgram(io: Io, paint: Paint, outcome: Outcome): Command {
  const program = new Command('syndexa')
    .description('The record of a title’s advertising IDs, and the engine that keeps every build true to it.')
    .version(version)
    .showHelpAfterError('Run it with --help to see how it is used.')
    .exitOverride()
    .configureOutput({ writeOut: io.out, writeErr: io.err });
  const end = (work: Promise<number>) => work.then((code) => void (outcome.code = code));
  const whole = () => buildProgram(io, paint, { code: exit.clean });
  for (const add of groups) add(program, { io, paint, end, whole, run: (args, io) => run(args, io, paint) });
  addExamples(program, '');
  return program;
}

/** Adds to each command's help the example that belongs to it. */
function addExamples(command: Command, path: string): void {
  for (const sub of command.commands) {
    const name = `${path} ${sub.name()}`.trim();
    const lines = valueAt(examples, name);
    if (lines)
      sub.addHelpText('after', `\nExample, on the demo:\n${lines.map((line) => `  ${line}`).join('\n')}\n`);
    addExamples(sub, name);
  }
}
