import type { Report } from '../network/report.js';

/** Millionths of a currency unit, as a whole number. */
export type Micros = number;

/** One unit of a currency in micros. */
export const unit = 1_000_000;
/** More than this in one row (ten million units) counts as a misreading. */
const mostMicros = 10_000_000 * unit;
/** More requests than this in one row count as a misreading. */
const mostCounted = 1_000_000_000_000;

const digitsOf = { units: 6, thousandths: 3, micros: 0 } as const;

/** A number that was read, or why it cannot be. */
export type ReadNumber = number | { problem: string };

/** How a report writes numbers. */
export type NumberForm = Pick<Report, 'decimal' | 'group' | 'revenue'>;

/** Returns a reader for amounts of money; what is finer than a micro is rounded, halves up. */
export function moneyReader(form: NumberForm): (text: string) => ReadNumber {
  const digits = digitsOf[form.revenue];
  const scale = 10 ** digits;
  const read = numberParts(form);
  return (text) => {
    const parts = read(text);
    if ('problem' in parts) return parts;
    const fraction = parts.fraction.slice(0, digits).padEnd(digits, '0');
    const isUp = (parts.fraction[digits] ?? '0') >= '5';
    const micros = Number(parts.whole) * scale + Number(fraction || '0') + (isUp ? 1 : 0);
    return micros <= mostMicros ? micros : { problem: `“${shortened(text)}” is more than ten million units` };
  };
}

/** Returns a reader for counts: whole numbers that are not negative. */
export function countReader(form: NumberForm): (text: string) => ReadNumber {
  const read = numberParts(form);
  return (text) => {
    if (text.length <= 12 && /^\d+$/.test(text)) return Number(text);
    const parts = read(text);
    if ('problem' in parts) return parts;
    if (/[1-9]/.test(parts.fraction)) return { problem: `“${shortened(text)}” is not a whole number` };
    const count = Number(parts.whole);
    return count <= mostCounted ? count : { problem: `“${shortened(text)}” is more than ${mostCounted}` };
  };
}

function numberParts({ decimal, group }: NumberForm) {
  const [mark, separator] = [decimal, group ?? ''].map((text) => text.replace('.', '\\.'));
  const grouped = group === undefined ? '' : `|\\d{1,3}(?:${separator}\\d{3})+`;
  const shape = new RegExp(`^(\\d{1,15}${grouped})(?:${mark}(\\d{1,20}))?$`);
  return (text: string): { whole: string; fraction: string } | { problem: string } => {
    const [, whole, fraction = ''] = shape.exec(text) ?? [];
    if (whole !== undefined && whole.length <= 25)
      return { whole: group === undefined ? whole : whole.replaceAll(group, ''), fraction };
    return { problem: problemOf(text, decimal, group) };
  };
}

function problemOf(text: string, decimal: string, group: string | undefined): string {
  const shown = `“${shortened(text)}”`;
  if (/^\(.*\)$|^[-−–]\s*\d/.test(text)) return `${shown} is negative`;
  if (/^[\d.,'’\s\u00a0\u202f]+$/.test(text) && /\d/.test(text))
    return `${shown} has another decimal mark, or separators between digits: the profile says that the decimal mark is “${decimal}”${group === undefined ? ' and that nothing separates digits' : ` and that “${group}” separates groups of three digits`}`;
  return `${shown} is not a number`;
}

function shortened(text: string): string {
  return text.length > 40 ? `${text.slice(0, 40)}…` : text;
}

/** An amount as people read it: `1,234.56 EUR`. */
export function moneyText(micros: Micros, currency: string): string {
  return `${amountText(micros)} ${currency}`;
}

/** An amount without its currency: `1,234.56`. */
export function amountText(micros: Micros): string {
  const cents = Math.round(Math.abs(micros) / 10_000);
  const whole = String(Math.floor(cents / 100)).replace(/\B(?=(\d{3})+$)/g, ',');
  return `${micros < 0 && cents > 0 ? '−' : ''}${whole}.${String(cents % 100).padStart(2, '0')}`;
}

/**
 * Rounds amounts so that they add up to the rounded sum: what rounding leaves over goes to the parts that lost most.
 * @param parts exact amounts in `1 / scale` micros
 */
export function apportion(parts: readonly bigint[], scale: bigint): Micros[] {
  const floors = parts.map((part) => (part >= 0n ? part / scale : -((-part + scale - 1n) / scale)));
  const total = parts.reduce((sum, part) => sum + part, 0n);
  const rounded = (total >= 0n ? total + scale / 2n : total - scale / 2n) / scale;
  let left = Number(rounded - floors.reduce((sum, part) => sum + part, 0n));
  const lost = parts.map((part, at) => ({ at, rest: part - (floors[at] ?? 0n) * scale }));
  lost.sort((a, b) => (a.rest === b.rest ? a.at - b.at : a.rest > b.rest ? -1 : 1));
  const result = floors.map(Number);
  for (const { at } of lost) {
    if (left <= 0) break;
    result[at] = (result[at] ?? 0) + 1;
    left--;
  }
  return result;
}
