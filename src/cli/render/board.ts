import { printableValue } from '../../core/text/printable.js';
import type { Board, BoardCell } from '../../core/board/model.js';
import type { WeekAnswer } from '../../api/tally.js';
import { isSeen } from '../../core/rehearsal/report.js';
import { cellState } from '../../core/board/cell-state.js';
import type { Paint } from '../io.js';
import { platformLabels } from '../../core/words/platform-labels.js';
import { foldLines } from './fold.js';
import { weekLines } from './week.js';
import { ruledTable } from './table.js';

const tableWidth = 160;
const narrow = 100;

interface BoardView {
  width: number;
  /** What units earned on the last seven days. */
  week: WeekAnswer['units'];
}

/** A board for people: placements down, platform and stage across; one table a platform where lines are short. */
export function boardText(answer: Board, paint: Paint, { width, week }: BoardView): string {
  const board = printableValue(answer);
  const lines = [paint.bold(`${board.name}: which ID does each build carry?`), ''];
  for (const { platform, identifier, found, tree, summary } of board.editions) {
    const state =
      summary === null
        ? paint.yellow('○ no tree read yet')
        : summary.blocker > 0
          ? paint.red(`■ ${summary.blocker} blockers`)
          : paint.green('● no blockers');
    const mismatch = found !== null && found !== identifier ? paint.red(`  the build says ${found}`) : '';
    const source = tree ? paint.dim(`  read from ${tree}`) : '';
    lines.push(foldLines(`${platformLabels[platform]}  ${identifier}${mismatch}  ${state}${source}`, width));
  }
  const platforms = board.editions.map(({ platform }) => platform);
  const groups = width >= tableWidth ? [platforms] : platforms.map((platform) => [platform]);
  if (board.rows.length === 0)
    lines.push('', 'No network is wired into this title yet: add the first ID with syndexa id set.');
  else for (const group of groups) lines.push('', tableOf(board, group, paint, { width, week }));
  const verdict = board.good
    ? paint.green('● The board is good: every expected ID is in the roster and in the build.')
    : paint.red('■ The board is not good yet.');
  return [...lines, '', verdict, ''].join('\n');
}

/** What the last rehearsal said, under the state. */
function rehearsedLine({ rehearsed }: BoardCell, paint: Paint): string[] {
  if (!rehearsed) return [];
  const text = `▷ ${rehearsed.text}${rehearsed.old ? ', before the last change' : ''}`;
  return [isSeen(rehearsed) && !rehearsed.old ? paint.dim(text) : paint.yellow(text)];
}

const tones = (paint: Paint) => ({ good: paint.green, bad: paint.red, open: paint.yellow, quiet: paint.dim });

function tableOf(
  { rows }: Board,
  platforms: readonly string[],
  paint: Paint,
  { width, week }: BoardView,
): string {
  const shown = rows.map((row) => ({
    ...row,
    cells: row.cells.filter(({ platform }) => platforms.includes(platform)),
  }));
  const columns = shown[0]?.cells.map(({ platform, stage }) => `${platformLabels[platform]} ${stage}`) ?? [];
  // Two IDs side by side matter more than a column for the network.
  const isNarrow = width < narrow;
  const content = shown.map(({ placement, label, network, networkName, format, cells }) => {
    const earned = week.filter(
      (unit) =>
        placement !== null &&
        unit.placement === placement &&
        unit.network === network &&
        platforms.includes(unit.platform ?? ''),
    );
    const from = [networkName, ...weekLines(earned).map(paint.dim)].join('\n');
    const name = placement === null ? paint.dim(label) : `${placement}\n${paint.dim(format ?? '')}`;
    const whose = isNarrow ? [`${name}\n${from}`] : [name, from];
    const states = cells.map((cell) => {
      const { shape, word, tone } = cellState(cell);
      return [
        cell.id ?? paint.dim('—'),
        tones(paint)[tone](`${shape} ${word}`),
        ...rehearsedLine(cell, paint),
      ].join('\n');
    });
    return [...whose, ...states];
  });
  const first = isNarrow ? ['placement'] : ['placement', 'network'];
  const whole = columns.map((_, at) => at + first.length);
  return ruledTable({ head: [...first, ...columns], rows: content, whole }, width);
}
