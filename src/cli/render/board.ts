import Table from 'cli-table3';
import type { Board } from '../../core/board/board.js';
import { cellState } from '../../core/board/cell-state.js';
import type { Paint } from '../io.js';
import { platformNames } from './places.js';

/** A board for people: placements down, platform and stage across. */
export function boardText(board: Board, paint: Paint): string {
  const tones = { good: paint.green, bad: paint.red, open: paint.yellow, quiet: paint.dim };
  const columns =
    board.rows[0]?.cells.map(({ platform, stage }) => `${platformNames[platform]} ${stage}`) ?? [];
  const table = new Table({
    head: ['placement', 'network', ...columns],
    style: { head: [], border: [], compact: false },
    chars: { mid: '', 'left-mid': '', 'mid-mid': '', 'right-mid': '' },
  });
  for (const { placement, label, networkName, format, cells } of board.rows) {
    const name = placement === null ? paint.dim(label) : `${placement}\n${paint.dim(format ?? '')}`;
    table.push([
      name,
      networkName,
      ...cells.map((cell) => {
        const { shape, word, tone } = cellState(cell);
        return `${cell.id ?? paint.dim('—')}\n${tones[tone](`${shape} ${word}`)}`;
      }),
    ]);
  }
  const lines = [paint.bold(`${board.name}: which ID does each build carry?`), ''];
  for (const { platform, identifier, found, tree, summary } of board.editions) {
    const state =
      summary === null
        ? paint.yellow('○ no tree read yet')
        : summary.blocker > 0
          ? paint.red(`■ ${summary.blocker} blockers`)
          : paint.green('● no blockers');
    const mismatch = found !== null && found !== identifier ? paint.red(`  the build says ${found}`) : '';
    lines.push(
      `${platformNames[platform]}  ${identifier}${mismatch}  ${state}${tree ? paint.dim(`  read from ${tree}`) : ''}`,
    );
  }
  lines.push(
    '',
    board.rows.length > 0
      ? table.toString()
      : 'No network is wired into this title yet: syndexa id set puts the first ID in.',
    '',
  );
  lines.push(
    board.good
      ? paint.green('● The board is good: every expected ID is in the roster and in the build.')
      : paint.red('■ The board is not good yet.'),
    '',
  );
  return lines.join('\n');
}
