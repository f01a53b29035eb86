import type { Figures, FiguresAnswer } from '../../../api/tally.js';
import { amountText } from '../../../core/tally/money.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import type { Metric } from './settings.js';

export function wholeText(value: number | null): string {
  return value === null ? '–' : value.toLocaleString('en');
}

export function rateText(value: number | null, digits = 1): string {
  return value === null ? '–' : `${(value * 100).toFixed(digits)} %`;
}

/** An amount with its sign. */
export function signedText(micros: number): string {
  const text = amountText(micros);
  return micros > 0 && /[1-9]/.test(text) ? `+${text}` : text;
}

/** What a row is about, in words. */
export function rowName({ by }: FiguresAnswer, key: string, unit: string | null): string {
  if (unit !== null) return `${key.slice(0, -unit.length).replace(/: $/, '')}, in no title`;
  if (key === '') return 'unknown';
  if (by === 'platform') return key === 'ios' ? platformLabels.ios : platformLabels.android;
  if (by !== 'release') return key;
  const [day = '', platform = '', ...rest] = key.split(' ');
  const name = platform === 'ios' ? platformLabels.ios : platformLabels.android;
  return day === '0000-00-00' ? `${name}, before any release` : `${name} ${rest.join(' ')} (${day})`;
}

/** The value that a chart draws: money in units of its currency, rates in percent. */
export function metricOf(figures: Figures, metric: Metric): number | null {
  const value = figures[metric];
  if (value === null) return null;
  if (metric === 'revenue' || metric === 'ecpm') return value / 1_000_000;
  return metric === 'fillRate' || metric === 'showRate' ? value * 100 : value;
}

export function metricText(value: number, metric: Metric): string {
  if (metric === 'revenue' || metric === 'ecpm') return amountText(Math.round(value * 1_000_000));
  return metric === 'fillRate' || metric === 'showRate'
    ? `${value.toFixed(1)} %`
    : wholeText(Math.round(value));
}
