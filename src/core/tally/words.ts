import { readDay } from './days.js';

/** How many days there are from one to another, both included. */
export function daysOf({ from, to }: { from: string; to: string }): number {
  return (readDay(to) ?? 0) - (readDay(from) ?? 0) + 1;
}

/** Days in words. */
export function spanText({ from, to }: { from: string; to: string }): string {
  return from === to ? from : `${from} to ${to}`;
}

/** Several spans of days in words; of many, the first ones. */
export function spansText(spans: readonly { from: string; to: string }[]): string {
  const shown = spans.slice(0, 8).map(spanText);
  return spans.length > 8 ? `${shown.join(', ')} and ${spans.length - 8} more` : shown.join(', ');
}

/** A whole number with its thousands apart. */
export function whole(number: number): string {
  return number.toLocaleString('en');
}

/** A change in percent, with its sign. */
export function percent(part: number, whole: number): string {
  if (whole === 0) return part === 0 ? '0.0 %' : 'from nothing';
  const ratio = (part / whole) * 100;
  return `${ratio < 0 ? '−' : '+'}${Math.abs(ratio).toFixed(1)} %`;
}
