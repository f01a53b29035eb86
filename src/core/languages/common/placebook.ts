import type { Format } from '../../words/words.js';
import type { Settings } from '../../words/settings.js';

/** The mark near the top of every placebook; Syndexa may overwrite files that have it. */
export const placebookMark = 'Placebook written by Syndexa';

/** A placement as app code will name it. */
export interface PlacebookPlacement {
  /** The placement's name in the roster, such as `tide-list-footer`. */
  name: string;
  format: Format;
  where?: string;
  /** Unit ID per network, for the stage that the file (or its branch) is for. */
  units: Record<string, string>;
  settings: Settings;
}

/** What one placebook says for one stage. */
export interface PlacebookStage {
  /** App IDs of the networks that take them in code. */
  apps: Record<string, string>;
  placements: PlacebookPlacement[];
  /** Devices for testing, per network: none in production. */
  devices: Record<string, readonly string[]>;
}

/** The input of every placebook besides its contents. */
export interface PlacebookOptions {
  title: string;
  /** The revision of the record that it is written from; none where it is not known. */
  revision?: number | undefined;
}

/** The comment that marks a placebook, in a language with `//` comments. */
export function markLines({ revision }: PlacebookOptions): string[] {
  return markOf(placebookMark, revision);
}

/** The comment at the top of a file that wiring writes. */
export function markOf(mark: string, revision: number | undefined): string[] {
  const from = revision === undefined ? '' : ` from revision ${revision} of the roster`;
  return [`// ${mark}${from}.`, '// Do not edit: change the roster and run "syndexa wire" again.'];
}

/** Lines longer than this (characters) are broken, as formatters of these languages do. */
const width = 100;

/** `head`, items and `tail` on one line, or an item per line where that would be too long. */
export function wrapped(indent: string, head: string, items: readonly string[], tail: string): string {
  const line = `${indent}${head}${items.join(', ')}${tail}`;
  if (line.length < width || items.length === 0) return line;
  return [
    `${indent}${head}`,
    items.map((item) => `${indent}    ${item}`).join(',\n'),
    `${indent}${tail}`,
  ].join('\n');
}

/** Whether two files that wiring wrote say the same; the revision that each was written from does not count. */
export function isSameGeneratedText(a: string, b: string): boolean {
  const plain = (text: string) =>
    text.replace(/\r\n?/g, '\n').replace(/ from revision \d+ of the roster\./g, '.');
  return plain(a) === plain(b);
}

/** Every network that a placebook names, in order of the alphabet. */
export function networksOf(stages: readonly PlacebookStage[]): string[] {
  const all = stages.flatMap(({ apps, placements, devices }) => [
    ...Object.keys(apps),
    ...Object.keys(devices),
    ...placements.flatMap(({ units }) => Object.keys(units)),
  ]);
  return [...new Set(all)].sort();
}

/** Names that the languages, or the placebook itself, use for something else. */
const taken = new Set(
  (
    'all stage apps test-devices network placement placebook abstract as assert boolean break byte case catch char class const ' +
    'continue copy default defer do double else enum extension extern false final finally float for fun func goto guard ' +
    'if implements import in init inline inout int interface internal is let long native new nil null object open ' +
    'operator out override package private protected protocol public register repeat return self short sizeof static ' +
    'struct subscript super switch synchronized this throw throws transient true try type typealias typeof union ' +
    'unsigned val var void volatile weak when where while yes no hash description'
  ).split(' '),
);

/** A name as code may use it: one that is taken gets an ending. */
function freeName(name: string): string {
  const started = /^[0-9]/.test(name) ? `ad-${name}` : name;
  return taken.has(started) ? `${started}-placement` : started;
}

/** `tide-list-footer` as `tideListFooter`. */
export function camelCase(name: string): string {
  return freeName(name).replace(/-([a-z0-9])/g, (_, letter: string) => letter.toUpperCase());
}

/** `tide-list-footer` as `TideListFooter`. */
export function pascalCase(name: string): string {
  const camel = camelCase(name);
  return camel.charAt(0).toUpperCase() + camel.slice(1);
}

/** `tide-list-footer` as `TIDE_LIST_FOOTER`. */
export function upperCase(name: string): string {
  return freeName(name).replace(/-/g, '_').toUpperCase();
}

/** How code may name a placement, in any language. */
export function placementNames(name: string): string[] {
  return [`Placebook.${camelCase(name)}`, `Placebook.${upperCase(name)}`, `Placebook.${pascalCase(name)}`];
}

/** Text as it may be in a comment of one line. */
export function comment(text: string): string {
  return text.replace(/\*\//g, '* /').replace(/\/\*/g, '/ *').replace(/\\/g, '/').replace(/\s+/g, ' ').trim();
}

/** What a placement is for, as a sentence. */
export function sentence(text: string): string {
  const plain = comment(text);
  const first = plain.charAt(0).toUpperCase() + plain.slice(1);
  return /[.!?]$/.test(first) ? first : `${first}.`;
}
