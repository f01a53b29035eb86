import { memo, useMemo, useRef } from 'react';
import { Link } from 'react-router';
import { counted } from '../../../core/text/counted.js';
import { cellState } from '../../../core/board/cell-state.js';
import type { Board, BoardCell, BoardRow } from '../../../core/board/model.js';
import { Choice, Controls, Finder, NetworkChoice } from '../../components/controls.js';
import { IdText, sharedLength } from '../../components/id-text.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import { WeekSpark, type WeekUnit } from '../../components/spark.js';
import { useAddress } from '../../components/use-address.js';
import { Room, useDrawnRows } from '../../components/virtual.js';
import { useWeek } from '../../queries.js';
import { State } from '../../components/states.js';

const stateFilters = [
  ['bad', 'what is wrong'],
  ['open', 'what is unknown'],
  ['good', 'what agrees'],
] as const;

/** One row a placement and network; only the rows in view are drawn. */
export function Ledger({ board: { rows, title } }: { board: Board }) {
  const found = useWeek(title).data;
  const [search, set] = useAddress();
  const [find = '', network = '', state = ''] = ['find', 'network', 'state'].map(
    (name) => search.get(name) ?? '',
  );
  const shown = useMemo(() => shownRows(rows, { find, network, state }), [rows, find, network, state]);
  const networks = new Map(rows.map((row) => [row.network, row.networkName]));
  return (
    <>
      <Controls name="Rows">
        <Finder label="Find a placement or an ID" value={find} set={(text) => set({ find: text })} />
        <NetworkChoice value={network} set={(id) => set({ network: id })} networks={networks} />
        <Choice
          label="State"
          value={state}
          set={(tone) => set({ state: tone })}
          all="every state"
          options={stateFilters}
        />
        <span className="soft" role="status">
          {shown.length === rows.length
            ? counted(rows.length, 'row')
            : `${shown.length} of ${counted(rows.length, 'row')}`}
        </span>
      </Controls>
      <Rows
        rows={rows}
        shown={shown}
        title={title}
        week={found && found.units.length > 0 ? found.units : null}
      />
    </>
  );
}

interface RowsProps {
  rows: readonly BoardRow[];
  shown: readonly BoardRow[];
  title: string;
  week: readonly WeekUnit[] | null;
}

function Rows({ rows, shown, title, week }: RowsProps) {
  const scroll = useRef<HTMLDivElement>(null);
  const { items, before, after, measure } = useDrawnRows(scroll, shown.length, 53);
  const shared = useMemo(() => sharedOf(rows), [rows]);
  const columns = rows[0]?.cells ?? [];
  return (
    <div className="ledger-scroll" ref={scroll} tabIndex={0} role="region" aria-label="Board, scrollable">
      <table className="ledger cards board">
        <thead>
          <tr>
            <th scope="col">Placement</th>
            <th scope="col">Network</th>
            {columns.map(({ platform, stage }) => (
              <th
                key={`${platform} ${stage}`}
                scope="col"
                className={stage === 'test' ? 'platform-start' : undefined}
              >
                {platformLabels[platform]} {stage}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <Room height={before} columns={columns.length + 2} />
          {items.map(({ index }) => {
            const row = shown[index];
            if (!row) return null;
            const about = { row, title, week, index, measure, shared: shared.get(kindOf(row)) ?? 0 };
            return <LedgerRow key={`${row.placement} ${row.network}`} {...about} />;
          })}
          <Room height={after} columns={columns.length + 2} />
        </tbody>
      </table>
    </div>
  );
}

function shownRows(
  rows: readonly BoardRow[],
  { find, network, state }: { find: string; network: string; state: string },
): readonly BoardRow[] {
  const wanted = find.trim().toLowerCase();
  return rows.filter(
    (row) =>
      (network === '' || row.network === network) &&
      (state === '' || row.cells.some((cell) => cellState(cell).tone === state)) &&
      (wanted === '' ||
        [row.placement ?? row.label, ...row.cells.flatMap(({ id, found }) => [id ?? '', ...found])].some(
          (text) => text.toLowerCase().includes(wanted),
        )),
  );
}

/** The group of IDs within which an ID shows the part that differs. */
function kindOf({ network, placement }: BoardRow): string {
  return `${network} ${placement === null ? 'app' : 'unit'}`;
}

/** How many characters the IDs of each group have in common, computed once for all rows. */
function sharedOf(rows: readonly BoardRow[]): Map<string, number> {
  const peers = new Map<string, string[]>();
  for (const row of rows) {
    const ids = row.cells.flatMap(({ id }) => id ?? []);
    const known = peers.get(kindOf(row));
    if (known) known.push(...ids);
    else peers.set(kindOf(row), ids);
  }
  return new Map([...peers].map(([kind, ids]) => [kind, sharedLength([...new Set(ids)])]));
}

/** A row of the board; rendered again only when its data changes, not with every frame of scrolling. */
const LedgerRow = memo(function LedgerRow({
  row,
  index,
  measure,
  shared,
  title,
  week,
}: {
  row: BoardRow;
  index: number;
  measure: (row: Element | null) => void;
  shared: number;
  title: string;
  week: readonly WeekUnit[] | null;
}) {
  const { placement, format, label, network, networkName, cells } = row;
  const earned = (week ?? []).filter(
    (one) => placement !== null && one.placement === placement && one.network === network,
  );
  return (
    <tr data-index={index} ref={measure}>
      <th scope="row">
        {placement ?? <span className="soft">{label}</span>}
        <div className="soft fw-normal">{format ?? 'whole app'}</div>
      </th>
      <td>
        <Link to={`/networks/${network}`}>{networkName}</Link>
        {earned.length > 0 && (
          <div>
            <WeekSpark units={earned} />
          </div>
        )}
      </td>
      {cells.map((cell) => (
        <Cell key={`${cell.platform} ${cell.stage}`} cell={cell} shared={shared} title={title} />
      ))}
    </tr>
  );
});

function Cell({ cell, shared, title }: { cell: BoardCell; shared: number; title: string }) {
  const { shape, word, tone } = cellState(cell);
  const hole = cell.record === 'missing' || cell.build === 'absent';
  const look = tone === 'bad' ? (hole ? 'cell-hole' : 'cell-wrong') : tone === 'open' ? 'cell-open' : '';
  return (
    <td
      className={`${look}${cell.stage === 'test' ? ' platform-start' : ''}`}
      data-state={word}
      data-label={`${platformLabels[cell.platform]} ${cell.stage}`}
    >
      {cell.id === null ? <span className="soft">—</span> : <IdText id={cell.id} shared={shared} />}
      <div>
        <State tone={tone} shape={shape} title={cell.why}>
          {tone === 'bad' ? <Link to={`/titles/${title}/${cell.platform}?view=findings`}>{word}</Link> : word}
        </State>
      </div>
      {cell.rehearsed && (
        <Link
          className={cell.rehearsed.old ? 'soft rehearsed rehearsed-old' : 'soft rehearsed'}
          to={`/titles/${title}/rehearsal?platform=${cell.platform}`}
          title={`${cell.rehearsed.scenario}, ${cell.rehearsed.at.slice(0, 10)}${cell.rehearsed.old ? ', before the last change of the tree' : ''}`}
        >
          <span aria-hidden="true">▷ </span>
          {cell.rehearsed.text}
        </Link>
      )}
      {cell.found.length > 0 && (
        <div className="soft">
          has <code>{cell.found.join(', ')}</code>
        </div>
      )}
    </td>
  );
}
