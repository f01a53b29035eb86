import { expect } from 'vitest';
import type { Paint } from '../../src/cli/io.js';

/** Paint that shows, so that a colour in the wrong place does. */
const colours = ['bold', 'dim', 'red', 'green', 'yellow', 'blue', 'cyan'] as const;
export const paint = Object.fromEntries(
  colours.map((name) => [name, (text: string) => `${name}(${text})`]),
) as unknown as Paint;
export const plain = Object.fromEntries(
  colours.map((name) => [name, (text: string) => text]),
) as unknown as Paint;

/** Compares with the file of what is rendered; `-u` writes it anew. */
export const same = (name: string, ...texts: readonly (string | readonly string[])[]) =>
  expect(
    texts
      .map((text) => (typeof text === 'string' ? text : text.join('\n')).trimEnd())
      .join('\n\n========\n\n'),
  ).toMatchFileSnapshot(`../cli/rendered/${name}.txt`);

/** Only what is rendered is given: the rest of an answer does not matter here. */
export const given = <Value>(value: unknown) => value as Value;
export const place = { path: 'app/a.xml', line: 3, column: 9 };
