import type { Format, Platform } from '../words/words.js';

/** What a unit is for. */
export interface UnitSpot {
  title: string;
  placement: string;
  format: Format;
  platform: Platform;
}

/** The pattern that units are named by when nobody says otherwise. */
export const usualPattern = '{title}_{placement}_{format}_{platform}';

const parts = ['title', 'placement', 'format', 'platform'] as const;

/** What is wrong with a pattern: every part that tells two units apart has to are in it. */
export function patternFault(pattern: string): string | null {
  const missing = parts.filter((part) => !pattern.includes(`{${part}}`));
  if (missing.length > 0) return `It lacks ${missing.map((part) => `{${part}}`).join(', ')}.`;
  const unknown = [...pattern.matchAll(/\{([^}]*)\}/g)].find(
    ([, name]) => !parts.some((part) => part === name),
  );
  if (unknown)
    return `There is no placeholder {${unknown[1]}}; the placeholders are ${parts.map((part) => `{${part}}`).join(', ')}.`;
  return pattern.length > 80 ? 'It is longer than 80 characters.' : null;
}

/** The name of a unit. */
export function unitName(pattern: string, spot: UnitSpot): string {
  return parts.reduce((name, part) => name.replaceAll(`{${part}}`, spot[part]), pattern);
}

/** The words of a name, for comparing: letters and digits in small letters, parted by anything else. */
export function nameWords(name: string): string[] {
  const parted = /[a-z0-9][A-Z]/.test(name) ? name.replace(/([a-z0-9])([A-Z])/g, '$1 $2') : name;
  return parted
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);
}
