import { counted } from '../text/counted.js';
import type { ImportSummary } from './imported.js';
import { moneyText } from './money.js';
import { daysOf, percent, spansText, spanText, whole } from './words.js';

/** More lines than this are counted only. */
const listed = 20;

/** What an import brought, in words: what came, and what is to be looked at. */
export function importWords(summary: ImportSummary): { done: string; warnings: string[] } {
  const { days, rows, added, same, restated, repeated, gaps, oddCount } = summary;
  const warnings = restated.map(({ currency, days: changed, rows: count, gone, before, after, total }) => {
    const number = changed.reduce((sum, { from, to }) => sum + daysOf({ from, to }), 0);
    const left = gone === 0 ? '' : `, ${whole(gone)} of them no longer reported`;
    return `${counted(number, 'day')} restated (${spansText(changed)}): ${counted(count, 'row')}${left}, revenue ${percent(after - before, total)}, ${moneyText(total, currency)} → ${moneyText(total + after - before, currency)}`;
  });
  if (repeated.count > 0)
    warnings.push(
      `${counted(repeated.count, 'row')} for a unit, day and country that an earlier row is for; the last one counts (line ${repeated.lines.slice(0, listed).join(', ')}${repeated.count > listed ? ', …' : ''})`,
    );
  if (gaps.length > 0) warnings.push(`no rows for ${spansText(gaps)}`);
  if (summary.unknownColumns.length > 0)
    warnings.push(
      `columns that the profile does not describe, and that are not read: ${summary.unknownColumns.join(', ')}`,
    );
  if (summary.missingColumns.length > 0)
    warnings.push(
      `columns of the profile that the table does not have: ${summary.missingColumns.join(', ')}`,
    );
  if (summary.unitsNotOnRecord > 0)
    warnings.push(`${counted(summary.unitsNotOnRecord, 'unit')} that no title holds`);
  if (oddCount > 0) warnings.push(`${counted(oddCount, 'row')} left out`);
  return {
    done: `${counted(rows, 'row')}${days ? `, ${spanText(days)}` : ''}: ${whole(added)} new, ${whole(same)} as before`,
    warnings,
  };
}
