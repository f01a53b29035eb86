import type { ChainStep, Place } from '../../core/facts/evidence.js';
import type { Paint } from '../io.js';

/** A place as people and editors read it: `path:line:column`. */
export function placeText(place: Place | null): string {
  return place ? `${place.path}:${place.line}:${place.column}` : '';
}

/** The evidence for a value, a line each. */
export function chainLines(chain: readonly ChainStep[], paint: Paint, indent: string): string[] {
  return chain.map(({ what, value, place }) => {
    const shown = value === null ? '' : ` ${paint.dim('=')} ${value}`;
    return `${indent}${paint.dim('└')} ${paint.dim(what)}${shown}  ${paint.dim(placeText(place))}`;
  });
}

/** Breaks text at blanks so that lines are at most `width` long; every line gets the indent. */
export function wrap(text: string, width: number, indent: string): string {
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(/\s+/)) {
    if (line !== '' && indent.length + line.length + 1 + word.length > width) {
      lines.push(indent + line);
      line = word;
    } else line = line === '' ? word : `${line} ${word}`;
  }
  if (line !== '') lines.push(indent + line);
  return lines.join('\n');
}
