import { counted } from '../../core/text/counted.js';
import type { CompareAnswer, Figures, FiguresAnswer } from '../../api/tally.js';
import { writeCsv } from '../../core/formats/csv/write.js';
import { readDay } from '../../core/tally/days.js';
import { amountText, moneyText, unit as oneUnit } from '../../core/tally/money.js';
import { groupBy } from '../../core/text/group-by.js';
import { printableValue } from '../../core/text/printable.js';
import { sparkline } from '../../core/text/sparkline.js';
import { platforms } from '../../core/words/words.js';
import type { Paint } from '../io.js';
import { platformLabels } from '../../core/words/platform-labels.js';
import { plainTable } from './table.js';
import { percent, spanText, whole } from '../../core/tally/words.js';

/** Bars of a sparkline. */
const bars = 42;

interface View {
  width: number;
  /** What the figures are of, in words. */
  subject: string;
}

/** Figures as tables, one for each currency. */
export function figuresText(answer: FiguresAnswer, paint: Paint, { width, subject }: View): string {
  const { by, days, rows, totals, daily } = printableValue(answer);
  if (!days)
    return `Nothing is on record for ${subject}.\nNext: ${paint.cyan('syndexa tally fetch')}, or ${paint.cyan('syndexa tally import FILE --network NETWORK')}\n`;
  const lines = [`${paint.bold(subject)}, ${spanText(days)}, by ${by}`];
  let left: string[] = [];
  for (const total of totals) {
    const { currency } = total;
    const own = rows.filter((row) => row.currency === currency);
    const amounts = daily.filter((one) => one.currency === currency);
    lines.push(
      '',
      `${moneyText(total.revenue, currency)}  ${paint.cyan(sparkline(seriesOf(days, amounts), bars))}`,
      '',
    );
    const names = own.map((row) => nameOf(row.key, row.unit, answer));
    const table = fittingColumns(
      [by, 'requests', 'fill', 'impressions', 'shown', 'clicks', 'CTR', currency, 'eCPM', 'share'],
      [...own.map((row, at) => [names[at] ?? '', ...cellsOf(row)]), ['total', ...cellsOf(total)]],
      width,
    );
    lines.push(plainTable(aligned(table.head, table.rows, paint), width).trimEnd());
    if (table.left.length > 0) left = table.left;
  }
  if (left.length > 0) lines.push('', paint.dim(`These columns do not fit: ${left.join(', ')}.`));
  lines.push('', ...notesOf(answer, paint));
  return `${lines.join('\n').trimEnd()}\n`;
}

/** Columns that give way where a line has no room for all of them, the first one first. */
const givesWay = ['clicks', 'CTR', 'share', 'shown', 'fill', 'eCPM'];

/** As many columns as a line has room for, and the names of the others. */
function fittingColumns(head: readonly string[], rows: readonly (readonly string[])[], width: number) {
  const widths = head.map((name, at) =>
    Math.max(name.length, ...rows.flatMap((row) => (row[at] ?? '').split('\n').map(({ length }) => length))),
  );
  const shown = head.map(() => true);
  const left: string[] = [];
  const needed = () => widths.reduce((sum, one, at) => sum + (shown[at] ? one + 2 : 0), -2);
  for (const name of givesWay) {
    if (needed() <= width) break;
    shown[head.indexOf(name)] = false;
    left.push(name);
  }
  const kept = <Cell>(row: readonly Cell[]) => row.filter((_, at) => shown[at]);
  return { head: kept(head), rows: rows.map(kept), left };
}

/** Figures as CSV: ratios as fractions, money in units of the currency. */
export function figuresCsv({ by, rows }: FiguresAnswer): string {
  const head = [
    by,
    'currency',
    'requests',
    'matched',
    'fill_rate',
    'impressions',
    'show_rate',
    'clicks',
    'click_rate',
    'rewards',
    'revenue',
    'ecpm',
    'share',
  ];
  return writeCsv([
    head,
    ...rows.map((row) => [
      row.key,
      row.currency,
      row.requests,
      row.matched,
      fraction(row.fillRate),
      row.impressions,
      fraction(row.showRate),
      row.clicks,
      fraction(row.clickRate),
      row.rewards,
      row.revenue / oneUnit,
      row.ecpm === null ? null : row.ecpm / oneUnit,
      fraction(row.share),
    ]),
  ]);
}

/** A comparison: what changed in all, then unit by unit. */
export function compareText(answer: CompareAnswer, paint: Paint, { width, subject }: View): string {
  const { days, against, rows, totals } = printableValue(answer);
  if (!days || !against) return `Nothing is on record for ${subject}.\n`;
  const lines = [`${paint.bold(subject)}, ${spanText(days)} against ${spanText(against)}`];
  for (const total of totals) {
    const own = rows.filter(({ currency }) => currency === total.currency);
    lines.push(
      '',
      `${moneyText(total.before, total.currency)} → ${moneyText(total.after, total.currency)}  ${signed(total.revenue)} (${percent(total.revenue, total.before)})`,
      '',
      plainTable(
        aligned(
          ['placement', 'before', 'after', 'change', 'volume', 'fill', 'price'],
          [
            ...own.map((row) => [
              `${row.placement === null ? row.unit : answer.title === null ? `${row.title ?? ''}/${row.placement}` : row.placement}\n${paint.dim([row.network, ...(row.platform ? [platformLabels[row.platform]] : [])].join(', '))}`,
              ...changeCells(row),
            ]),
            ['total', ...changeCells(total)],
          ],
          paint,
        ),
        width,
      ).trimEnd(),
    );
  }
  lines.push('', ...notesOf(answer, paint));
  return `${lines.join('\n').trimEnd()}\n`;
}

function changeCells(change: CompareAnswer['totals'][number]): string[] {
  const { before, after, revenue, volume, fill, price } = change;
  return [amountText(before), amountText(after), ...[revenue, volume, fill, price].map(signed)];
}

/** A header and rows with right-aligned numbers; the last row is the total. */
function aligned(head: readonly string[], rows: readonly (readonly string[])[], paint: Paint) {
  const widths = head.map((name, at) => Math.max(name.length, ...rows.map((row) => (row[at] ?? '').length)));
  const right = (row: readonly string[]) =>
    row.map((cell, at) => (at === 0 ? cell : cell.padStart(widths[at] ?? 0)));
  return {
    head: right(head).map(paint.dim),
    rows: rows.map((row, at) => (at === rows.length - 1 ? right(row).map(paint.bold) : right(row))),
    whole: head.map((_, at) => at),
  };
}

function cellsOf(figures: Figures): string[] {
  const { requests, fillRate, impressions, showRate, clicks, clickRate, revenue, ecpm, share } = figures;
  return [
    requests === null ? '–' : whole(requests),
    ratioText(fillRate, 1),
    whole(impressions),
    ratioText(showRate, 1),
    clicks === null ? '–' : whole(clicks),
    ratioText(clickRate, 2),
    amountText(revenue),
    ecpm === null ? '–' : amountText(ecpm),
    ratioText(share, 1),
  ];
}

/** What a row is about, in words. */
function nameOf(key: string, unit: string | null, { by }: FiguresAnswer): string {
  if (unit !== null) return `${unit}\n${key.slice(0, -unit.length).replace(/: $/, '')}, in no title`;
  if (by === 'release') return releaseName(key);
  if (by === 'platform')
    return platforms.find((one) => one === key) ? platformLabels[key as 'ios'] : 'unknown';
  return key === '' ? 'unknown' : key;
}

/** A release as its key has it: its day, platform, version and, where there are several titles, the title. */
function releaseName(key: string): string {
  const [day = '', platform = '', ...rest] = key.split(' ');
  if (platform === '') return 'unknown';
  const name = platformLabels[platform as 'ios'];
  if (day === '0000-00-00') return `${name}, before any release ${rest.join(' ')}`.trimEnd();
  return `${name} ${rest.join(' ')} (${day})`;
}

function notesOf(
  { zones, unconverted, in: into }: Pick<FiguresAnswer, 'zones' | 'unconverted' | 'in'>,
  paint: Paint,
): string[] {
  const notes = [...groupBy(zones, ({ zone }) => zone)].map(
    ([zone, own]) => `${own.map(({ network }) => network).join(', ')}: ${zone}`,
  );
  return [
    ...unconverted.map(
      ({ currency, days }) =>
        `${paint.yellow('▲')} no rate from ${currency} into ${into ?? ''} for ${counted(days, 'day')}: these amounts are listed separately. Import rates with ${paint.cyan('syndexa tally rates FILE')}`,
    ),
    ...(into === null ? [] : [paint.dim(`Amounts were converted into ${into} by the rate of each day.`)]),
    ...(notes.length === 0 ? [] : [paint.dim(`Days are those of each network (${notes.join('; ')}).`)]),
  ];
}

/** An amount for each day, nothing where none is on record. */
function seriesOf(
  { from, to }: { from: string; to: string },
  daily: readonly { day: string; revenue: number }[],
): number[] {
  const amounts = new Map(daily.map(({ day, revenue }) => [readDay(day), revenue]));
  const first = readDay(from) ?? 0;
  const length = Math.max(0, (readDay(to) ?? 0) - first + 1);
  return Array.from({ length }, (_, at) => amounts.get(first + at) ?? 0);
}

function ratioText(ratio: number | null, digits: number): string {
  return ratio === null ? '–' : `${(ratio * 100).toFixed(digits)}%`;
}

function fraction(ratio: number | null): number | null {
  return ratio === null ? null : Number(ratio.toFixed(6));
}

function signed(micros: number): string {
  const text = amountText(micros);
  return micros > 0 && /[1-9]/.test(text) ? `+${text}` : text;
}
