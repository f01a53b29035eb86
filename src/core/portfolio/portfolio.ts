import * as z from 'zod';
import { cellState } from '../board/cell-state.js';
import { BoardEdition, type Board } from '../board/model.js';
import { portfolioStates, type PortfolioState } from './states.js';

const State = z.enum(portfolioStates).meta({
  description:
    'wrong: a blocker, or an ID that is missing or differs; open: no tree was read, or reading cannot tell; empty: no network is wired; agrees: everything matches.',
});

export const PortfolioChange = z.object({
  fields: z.number().int().meta({ description: 'How many fields of the roster changed.' }),
  at: z.string().meta({ description: 'When the last of them changed.' }),
  who: z.array(z.string()).meta({ description: 'Who changed them.' }),
});
export type PortfolioChange = z.infer<typeof PortfolioChange>;

export const PortfolioEntry = z
  .object({
    id: z.string(),
    name: z.string(),
    state: State,
    editions: z.array(BoardEdition.pick({ platform: true, tree: true, readAt: true, summary: true })),
    networks: z.array(z.string()),
    placements: z.number().int(),
    cells: z
      .object({ agree: z.number().int(), wrong: z.number().int(), open: z.number().int() })
      .meta({ description: 'The cells of its board, by what they say.' }),
    changed: PortfolioChange.nullable().meta({ description: 'What changed in the last 24 hours.' }),
  })
  .meta({
    title: 'Portfolio entry',
    description: 'A summary of a title: what is wired, and whether it agrees.',
  });
export type PortfolioEntry = z.infer<typeof PortfolioEntry>;

/** A title in short, from its board. */
export function portfolioEntry(board: Board, changed: PortfolioChange | null): PortfolioEntry {
  const tones = board.rows.flatMap(({ cells }) => cells.map((cell) => cellState(cell).tone));
  const count = (wanted: string) => tones.filter((tone) => tone === wanted).length;
  const cells = { agree: count('good'), wrong: count('bad'), open: count('open') };
  return {
    id: board.title,
    name: board.name,
    state: stateOf(board, cells),
    editions: board.editions.map(({ platform, tree, readAt, summary }) => ({
      platform,
      tree,
      readAt,
      summary,
    })),
    networks: [...new Set(board.rows.map(({ network }) => network))],
    placements: new Set(board.rows.flatMap(({ placement }) => placement ?? [])).size,
    cells,
    changed,
  };
}

function stateOf({ editions, rows }: Board, { wrong, open }: PortfolioEntry['cells']): PortfolioState {
  if (rows.length === 0) return 'empty';
  if (wrong > 0 || editions.some(({ summary }) => (summary?.blocker ?? 0) > 0)) return 'wrong';
  return open > 0 || editions.some(({ summary }) => summary === null) ? 'open' : 'agrees';
}
