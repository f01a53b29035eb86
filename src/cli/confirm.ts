import { CommandError, exit, type Io } from './io.js';

/**
 * Asks for confirmation.
 * @param yes whether the command line already confirmed
 * @throws CommandError if there is no terminal
 */
export async function isConfirmed(io: Io, question: string, yes: boolean | undefined): Promise<boolean> {
  if (yes) return true;
  const reply = await io.ask(`${question} [y/N] `);
  if (reply === null)
    throw new CommandError(
      'There is no terminal to ask for confirmation.',
      exit.wrongUse,
      'Use --yes to continue without confirmation.',
    );
  const isYes = /^y(es)?$/i.test(reply.trim());
  if (!isYes) io.out('Nothing was changed.\n');
  return isYes;
}
