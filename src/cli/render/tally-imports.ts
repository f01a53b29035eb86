import type { FetchAnswer, ImportSummary } from '../../api/tally.js';
import { moneyText } from '../../core/tally/money.js';
import { printableValue } from '../../core/text/printable.js';
import type { Paint } from '../io.js';
import { daysOf, numbered, percent, spansText, spanText, whole } from './tally-words.js';

/** More rows and lines than this are counted only. */
const listed = 20;

/** What an import brought. */
export function importText(summary: ImportSummary, paint: Paint): string {
  const { network, name, days, rows, added, same, restated, repeated, gaps, odd, oddCount, ...rest } =
    printableValue(summary);
  const what = name === '' ? paint.bold(network) : `${paint.bold(network)} from ${name}`;
  const lines = [
    `${paint.green('✔')} ${numbered(rows, 'row')} of ${what}${days ? `, ${spanText(days)}` : ''}: ${whole(added)} new, ${whole(same)} as before`,
  ];
  const warn = (text: string) => lines.push(`${paint.yellow('▲')} ${text}`);
  for (const { currency, days: changed, rows: count, gone, before, after, total } of restated) {
    const number = changed.reduce((sum, { from, to }) => sum + daysOf({ from, to }), 0);
    warn(
      `${numbered(number, 'day')} restated (${spansText(changed)}): ${numbered(count, 'row')}${gone === 0 ? '' : `, ${whole(gone)} of them no longer reported`}, revenue ${percent(after - before, total)}, ${moneyText(total, currency)} → ${moneyText(total + after - before, currency)}`,
    );
  }
  if (repeated.count > 0)
    warn(
      `${numbered(repeated.count, 'row')} for a unit, day and country that an earlier row is for; the last one counts (line ${repeated.lines.slice(0, listed).join(', ')}${repeated.count > listed ? ', …' : ''})`,
    );
  if (gaps.length > 0) warn(`no rows for ${spansText(gaps)}`);
  if (rest.unknownColumns.length > 0)
    warn(
      `columns that the profile does not describe, and that are not read: ${rest.unknownColumns.join(', ')}`,
    );
  if (rest.missingColumns.length > 0)
    warn(`columns of the profile that the table does not have: ${rest.missingColumns.join(', ')}`);
  if (rest.unitsNotOnRecord > 0) warn(`${numbered(rest.unitsNotOnRecord, 'unit')} that no title holds`);
  if (oddCount > 0) warn(`${numbered(oddCount, 'row')} left out`);
  for (const { row, message } of odd.slice(0, listed)) lines.push(`    line ${row}: ${message}`);
  if (oddCount > listed) lines.push(paint.dim(`    and ${whole(oddCount - listed)} more; --json has them`));
  return `${lines.join('\n')}\n`;
}

/** What networks reported. */
export function fetchText({ fetched, skipped }: FetchAnswer, paint: Paint): string {
  const parts = fetched.map((summary) => importText(summary, paint));
  for (const { network, why, fix } of printableValue(skipped))
    parts.push(`${paint.yellow('▲')} ${paint.bold(network)} was not read: ${why}\n    ${fix}\n`);
  if (parts.length === 0) parts.push('No profile describes a report by HTTP.\n');
  return parts.join('');
}
