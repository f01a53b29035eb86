import { counted } from '../../core/text/counted.js';
import { printableValue } from '../../core/text/printable.js';
import type { CollectAnswer } from '../../api/inventory.js';
import { withService } from '../connect.js';
import { CommandError, exit, type Io, type Paint, printJson } from '../io.js';
import { callFollowed } from '../progress.js';
import { platformLabels } from '../../core/words/platform-labels.js';
import { textOfFile } from '../read-file.js';

export interface CollectOptions {
  network: string;
  csv?: string;
  column?: string[];
  separator?: string;
  encoding?: string;
  takeLow?: boolean;
  acceptNames?: boolean;
  dryRun?: boolean;
  yes?: boolean;
  json?: boolean;
}

/** `syndexa id collect TITLE`: the network's list brought in, its IDs put where they belong. */
export function collect(io: Io, paint: Paint, title: string, options: CollectOptions): Promise<number> {
  return withService(io, async (client) => {
    const body = {
      network: options.network,
      ...(options.csv === undefined ? {} : { table: await textOfFile(io, options.csv, options.encoding) }),
      ...(options.column ? { columns: columnsOf(options.column) } : {}),
      ...(options.separator === undefined
        ? {}
        : { separator: options.separator === 'tab' ? '\t' : options.separator }),
      takeLow: options.takeLow ?? false,
      acceptNames: options.acceptNames ?? false,
    };
    const ask = (more: { dryRun?: boolean; plan?: string }) => {
      const call = { params: { title }, body: { ...body, ...more } };
      return callFollowed(io, client, 'collect', call, `reading the units of ${options.network}`);
    };
    // Agreed to beforehand, it is read and taken in one call.
    const plan = await ask({ dryRun: options.yes !== true || options.dryRun === true });
    if (!options.json) io.prose(collectText(plan, paint));
    const wanted = plan.matches.filter(
      ({ isNew, confidence }) => isNew && (confidence !== 'low' || options.takeLow),
    );
    if (options.dryRun) {
      if (options.json) printJson(io, plan);
      return exit.clean;
    }
    if (wanted.length > 0 && !plan.applied) {
      const answer = await io.ask(`Add ${counted(wanted.length, 'ID')} to the roster? [y/N] `);
      if (!/^y(es)?$/i.test(answer?.trim() ?? '')) {
        io.err('Nothing was written. To skip this question: --yes\n');
        return exit.refused;
      }
    }
    const answer = plan.applied ? plan : await ask({ plan: plan.plan });
    if (options.json) printJson(io, answer);
    else
      io.out(
        `${paint.green('✔')} ${counted(answer.units, 'unit is', 'units are')} known of ${answer.network}; ${counted(answer.taken, 'ID')} added to the roster.\n`,
      );
    return exit.clean;
  });
}

const columnNames = ['id', 'name', 'format', 'platform', 'app', 'status', 'serves-from'];

function columnsOf(words: readonly string[]): Record<string, string> {
  return Object.fromEntries(
    words.map((word) => {
      const at = word.indexOf('=');
      const name = word.slice(0, at);
      if (at > 0 && columnNames.includes(name)) return [name, word.slice(at + 1)];
      throw new CommandError(
        `--column takes FIELD=COLUMN, not “${word}”.`,
        exit.wrongUse,
        `The fields are ${columnNames.join(', ')}.`,
      );
    }),
  );
}

const shown = 40;

function collectText(answer: CollectAnswer, paint: Paint): string {
  const { matches, unmatched, unmatchedCount, elsewhere, elsewhereCount, odd, oddCount, units } =
    printableValue(answer);
  const known = matches.filter(({ isNew }) => !isNew).length;
  const others = elsewhereCount > 0 ? `, ${elsewhereCount} in other titles` : '';
  const lines = [
    `${counted(units, 'unit')} of ${paint.bold(answer.network)}; ${known} of them ${known === 1 ? 'is' : 'are'} in ${answer.title} already${others}.`,
  ];
  const fresh = matches.filter(({ isNew }) => isNew);
  if (fresh.length > 0) lines.push('', 'Matched');
  for (const { unit, placement, platform, confidence, why } of fresh.slice(0, shown)) {
    const mark = confidence === 'low' ? paint.yellow('▲ low ') : paint.green('● high');
    lines.push(`  ${mark}  ${unit.id}  → ${placement} (${platformLabels[platform]})  ${paint.dim(why)}`);
  }
  if (fresh.length > shown) lines.push(paint.dim(`  and ${fresh.length - shown} more`));
  if (fresh.some(({ confidence }) => confidence === 'low'))
    lines.push(paint.dim('  Matches of low confidence are added only with --take-low.'));
  if (unmatchedCount > 0) lines.push('', `Not matched (${unmatchedCount})`);
  for (const { unit, why, candidates } of unmatched.slice(0, shown)) {
    const likely = candidates.map(({ placement, platform }) => `${placement} (${platformLabels[platform]})`);
    lines.push(
      `  ${paint.dim('○')} ${unit.id}  “${unit.name}”  ${paint.dim(`${why}${likely.length > 0 ? `; it could be ${likely.join(', ')}` : ''}`)}`,
    );
  }
  if (unmatchedCount > shown) lines.push(paint.dim(`  and ${unmatchedCount - shown} more; --json has them`));
  if (elsewhereCount > 0) lines.push('', `In other titles (${elsewhereCount})`);
  for (const { unit, title, placement, platform } of elsewhere.slice(0, shown))
    lines.push(
      `  ${paint.dim('·')} ${unit.id}  ${paint.dim(`${title}, ${placement} (${platformLabels[platform]})`)}`,
    );
  if (elsewhereCount > shown) lines.push(paint.dim(`  and ${elsewhereCount - shown} more; --json has them`));
  if (oddCount > 0) lines.push('', `Invalid rows (${oddCount})`);
  for (const { row, message } of odd.slice(0, shown)) lines.push(`  ${paint.yellow('▲')} ${row}: ${message}`);
  return `${lines.join('\n')}\n`;
}
