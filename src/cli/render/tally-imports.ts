import type { FetchAnswer, ImportSummary } from '../../api/tally.js';
import { importWords } from '../../core/tally/import-words.js';
import { whole } from '../../core/tally/words.js';
import { printableValue } from '../../core/text/printable.js';
import type { Paint } from '../io.js';

/** More rows than this are counted only. */
const listed = 20;

/** What an import brought. */
export function importText(summary: ImportSummary, paint: Paint): string {
  const { network, name, odd, oddCount, ...rest } = printableValue(summary);
  const { done, warnings } = importWords({ network, name, odd, oddCount, ...rest });
  const what = name === '' ? paint.bold(network) : `${paint.bold(network)} from ${name}`;
  const lines = [`${paint.green('✔')} ${what}: ${done}`];
  for (const warning of warnings) lines.push(`${paint.yellow('▲')} ${warning}`);
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
