import { counted } from '../../core/text/counted.js';
import type { SilentAnswer } from '../../api/tally.js';
import { moneyText } from '../../core/tally/money.js';
import { printableValue } from '../../core/text/printable.js';
import type { Paint } from '../io.js';
import { foldLines } from './fold.js';

/** More findings than this are counted only. */
const listed = 30;

/** Findings in daily numbers, with what is lost by each. */
export function silentText(answer: SilentAnswer, paint: Paint, width: number): string {
  const { findings, last, title } = printableValue(answer);
  if (last.length === 0)
    return `No network has reported anything yet.\nNext: ${paint.cyan('syndexa tally fetch')}\n`;
  const lines: string[] = [];
  for (const { rule, severity, message, mend, stake, title: of } of findings.slice(0, listed)) {
    const mark = severity === 'note' ? paint.blue('·') : paint.yellow('▲');
    const lost =
      stake && stake.micros > 0 ? `about ${moneyText(stake.micros, stake.currency)} in thirty days` : '';
    lines.push(
      `${mark} ${paint.bold(of ?? 'no title')}  ${rule}${lost === '' ? '' : `  ${paint.bold(lost)}`}`,
      foldLines(`  ${message}`, width),
      ...foldLines(`  ${mend}`, width).split('\n').map(paint.dim),
      '',
    );
  }
  if (findings.length > listed)
    lines.push(paint.dim(`and ${findings.length - listed} more; --json has them`), '');
  const until = last.map(({ network, day }) => `${network} ${day}`).join(', ');
  lines.push(
    findings.length === 0
      ? paint.green(`✔ nothing is silent in ${title ?? 'any title'}`)
      : paint.yellow(`▲ ${counted(findings.length, 'finding')}`),
    paint.dim(`Numbers up to: ${until}.`),
  );
  return `${lines.join('\n')}\n`;
}
