import { randomInt } from 'node:crypto';
import { printableText } from '../core/text/printable.js';

type Colour = (text: string) => string;

/** Colours of terminal output. */
export interface Paint {
  bold: Colour;
  dim: Colour;
  red: Colour;
  green: Colour;
  yellow: Colour;
  blue: Colour;
  cyan: Colour;
}

/** The codes (ECMA-48, SGR) that begin and end each. */
const codes: Record<keyof Paint, readonly [number, number]> = {
  bold: [1, 22],
  dim: [2, 22],
  red: [31, 39],
  green: [32, 39],
  yellow: [33, 39],
  blue: [34, 39],
  cyan: [36, 39],
};

/**
 * Tells our own colour codes from any that came with a name out of a tree: it is a parameter of every code until the
 * text goes out, and nobody can know it before.
 */
const token = randomInt(1000, 10_000);

/** Whether colours are printed: at a terminal, unless the environment says otherwise. */
export function hasColours(env: Readonly<Record<string, string | undefined>>, isTerminal: boolean): boolean {
  if (!['', '0', 'false'].includes(env.FORCE_COLOR ?? '')) return true;
  return isTerminal && !env.NO_COLOR && env.TERM !== 'dumb';
}

/** Colours, or none. */
export function paintFor(enabled: boolean): Paint {
  const colour = ([open, close]: readonly [number, number]): Colour => {
    const begin = `\u001b[${open};${token}m`;
    const end = `\u001b[${close};${token}m`;
    return (text) => (enabled ? `${begin}${text.replaceAll(end, `${end}${begin}`)}${end}` : text);
  };
  return {
    bold: colour(codes.bold),
    dim: colour(codes.dim),
    red: colour(codes.red),
    green: colour(codes.green),
    yellow: colour(codes.yellow),
    blue: colour(codes.blue),
    cyan: colour(codes.cyan),
  };
}

const ours = new RegExp(`\\u001b\\[(\\d+);${token}m`);

/** Text as it goes out to a terminal, a pipe or a file: colours are ours, and every other control is escaped. */
export function outgoing(text: string): string {
  // Split by our own codes, every second part is the number of a code.
  return text
    .split(ours)
    .map((part, index) => (index % 2 === 0 ? printableText(part) : `\u001b[${part}m`))
    .join('');
}

/**
 * The text of a table, whose library ends and begins colours anew at the edges of cells: those codes count as ours. They
 * are bold, dim and the ends of colours only, so a name in a cell gains nothing by holding one.
 */
export function tableText(table: { toString(): string }): string {
  return table.toString().replace(/\u001b\[(1|2|22|39)m/g, (_, code: string) => `\u001b[${code};${token}m`);
}
