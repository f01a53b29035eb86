import { InvalidArgumentError, Option, type Command } from 'commander';
import type { Io, Paint } from '../io.js';

/** What a group of commands is given. */
export interface GroupContext {
  io: Io;
  paint: Paint;
  /** Ends a command with the exit code that its work comes to. */
  end: (work: Promise<number>) => Promise<void>;
  /** Runs another command, as it would be typed. */
  run: (args: readonly string[], io: Io) => Promise<number>;
  /** The whole program anew, for documents about it. */
  whole: () => Command;
}

/** Adds some commands to the program. What they do is loaded only when one of them is run. */
export type Group = (program: Command, context: GroupContext) => void;

export const json = () =>
  new Option('--json', 'print one JSON document on standard output, and nothing else');
export const titleOption = () =>
  new Option('-t, --title <title>', 'the title to compare with (else found by its identifiers)');

/** Refuses all but whole numbers between two others. */
export function wholeNumber(least: number, most: number): (text: string) => number {
  return (text) => {
    const number = Number(text);
    if (/^\d+$/.test(text) && number >= least && number <= most) return number;
    throw new InvalidArgumentError(`It is a whole number from ${least} to ${most}.`);
  };
}

export function portNumber(value: string): number {
  const port = Number(value);
  if (Number.isInteger(port) && port >= 0 && port < 65_536) return port;
  throw new InvalidArgumentError('A port is a whole number from 0 to 65535.');
}
