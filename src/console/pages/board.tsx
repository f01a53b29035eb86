import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';
import { Link, useParams } from 'react-router';
import type { Board, BoardCell, BoardEdition, BoardRow } from '../../core/board/model.js';
import { cellState } from '../../core/board/cell-state.js';
import { platformNames } from '../components/platform-names.js';
import { IdText } from '../components/id-text.js';
import { Empty, Failure, Loading, SeverityMark } from '../components/states.js';
import { WeekSpark, type WeekUnit } from '../components/spark.js';
import { useBoard, useTrees, useWeek } from '../queries.js';
import { Heading } from '../components/heading.js';

/** The board: one row a placement and network, platforms and stages side by side. */
export function BoardPage() {
  const { title = '' } = useParams();
  const board = useBoard(title);
  if (board.status === 'pending') return <Loading what="the board" />;
  if (board.status === 'error') return <Failure error={board.error} again={() => void board.refetch()} />;
  const { name, rows, editions, good } = board.data;
  return (
    <main className="page">
      <Heading>Which ID does each build of {name} carry?</Heading>
      <p className="lede">
        {good ? (
          <span className="state state-good">
            <span className="shape">●</span>good: every expected ID is in the record and in the build
          </span>
        ) : (
          <>Each cell tells what the record holds, and whether the tree that was last read would build it.</>
        )}
      </p>
      <Interrupted title={title} />
      <div className="summary">
        {editions.map((edition) => (
          <EditionSummary key={edition.platform} title={title} edition={edition} />
        ))}
      </div>
      {rows.length === 0 ? (
        <Empty>
          <p>
            No network is wired into {name} yet. Put the first ID in on the{' '}
            <Link to={`/titles/${title}/record`}>record page</Link>, or in a terminal:
          </p>
          <pre>syndexa id set {title} ID --network NETWORK --platform android</pre>
        </Empty>
      ) : (
        <Ledger board={board.data} />
      )}
    </main>
  );
}

/** A write to a linked tree that was interrupted: until it is settled, what is read of that tree may be half of it. */
function Interrupted({ title }: { title: string }) {
  const trees = useTrees();
  return (trees.data ?? []).map(({ id, path, title: of, interrupted }) =>
    of !== title || interrupted === null ? null : (
      <div key={id} className="problem" role="alert">
        <strong>
          A write to {path} was interrupted ({interrupted.what},{' '}
          {interrupted.at.slice(0, 16).replace('T', ' ')}).
        </strong>
        <div>
          Until it is settled, the tree may hold half of it ({interrupted.files.length}{' '}
          {interrupted.files.length === 1 ? 'file' : 'files'}). Take it back with{' '}
          <code>syndexa undo {path}</code>, or finish it with{' '}
          <code>
            syndexa wire {path} --title {title} --write
          </code>
          .
        </div>
      </div>
    ),
  );
}

function EditionSummary({ title, edition }: { title: string; edition: BoardEdition }) {
  const { platform, identifier, found, tree, readAt, summary } = edition;
  const look = summary === null ? 'is-open' : summary.blocker > 0 ? 'is-bad' : 'is-good';
  return (
    <section className={look} aria-label={platformNames[platform]}>
      <strong>{platformNames[platform]}</strong> <code>{identifier}</code>
      {found !== null && found !== identifier && (
        <div className="state state-bad">
          <span className="shape">✕</span>the build says <code>{found}</code>
        </div>
      )}
      <div>
        {summary === null ? (
          <span className="state state-open">
            <span className="shape">○</span>no tree was read yet
          </span>
        ) : (
          <>
            <SeverityMark severity="blocker" count={summary.blocker} />{' '}
            <SeverityMark severity="warning" count={summary.warning} />{' '}
            <SeverityMark severity="note" count={summary.note} />{' '}
            <Link to={`/titles/${title}/${platform}?view=findings`}>
              {summary.blocker + summary.warning + summary.note > 0 ? 'see what is wrong' : 'see the edition'}
            </Link>
          </>
        )}
      </div>
      <div className="soft">
        {tree === null ? (
          <code>syndexa check DIR --title {title}</code>
        ) : (
          `read from ${tree}, ${new Date(readAt ?? '').toLocaleString()}`
        )}
      </div>
    </section>
  );
}

function Ledger({ board: { rows, editions, title } }: { board: Board }) {
  const scroll = useRef<HTMLDivElement>(null);
  const found = useWeek(title).data;
  const week = found && found.units.length > 0 ? found.units : null;
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => 53,
    overscan: 20,
  });
  const items = virtual.getVirtualItems();
  const [before, after] = [items[0]?.start ?? 0, virtual.getTotalSize() - (items.at(-1)?.end ?? 0)];
  const columns = rows[0]?.cells ?? [];
  return (
    <div className="ledger-scroll" ref={scroll}>
      <table className="ledger">
        <thead>
          <tr>
            <th>Placement</th>
            <th>Network</th>
            {columns.map(({ platform, stage }) => (
              <th key={`${platform} ${stage}`} className={stage === 'test' ? 'platform-start' : undefined}>
                {platformNames[platform]} {stage}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {before > 0 && (
            <tr aria-hidden="true">
              <td colSpan={columns.length + 2} style={{ height: before, padding: 0, border: 0 }} />
            </tr>
          )}
          {items.map(({ index }) => {
            const row = rows[index];
            return (
              row && (
                <LedgerRow key={index} row={row} rows={rows} title={title} editions={editions} week={week} />
              )
            );
          })}
          {after > 0 && (
            <tr aria-hidden="true">
              <td colSpan={columns.length + 2} style={{ height: after, padding: 0, border: 0 }} />
            </tr>
          )}
        </tbody>
      </table>
    </div>
  );
}

function LedgerRow({
  row,
  rows,
  title,
  week,
}: {
  row: BoardRow;
  rows: readonly BoardRow[];
  title: string;
  editions: readonly BoardEdition[];
  week: readonly WeekUnit[] | null;
}) {
  const { placement, format, label, network, networkName, cells } = row;
  const kin = rows.filter(
    (other) => other.network === network && (other.placement === null) === (placement === null),
  );
  const earned = (week ?? []).filter(
    (one) => placement !== null && one.placement === placement && one.network === network,
  );
  const peers = kin.flatMap((other) => other.cells.flatMap(({ id }) => id ?? []));
  return (
    <tr>
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
        <Cell key={`${cell.platform} ${cell.stage}`} cell={cell} peers={peers} title={title} />
      ))}
    </tr>
  );
}

function Cell({ cell, peers, title }: { cell: BoardCell; peers: readonly string[]; title: string }) {
  const { shape, word, tone } = cellState(cell);
  const hole = cell.record === 'missing' || cell.build === 'absent';
  const look = tone === 'bad' ? (hole ? 'cell-hole' : 'cell-wrong') : tone === 'open' ? 'cell-open' : '';
  return (
    <td className={`${look}${cell.stage === 'test' ? ' platform-start' : ''}`} data-state={word}>
      {cell.id === null ? <span className="soft">—</span> : <IdText id={cell.id} peers={peers} />}
      <div className={`state state-${tone}`} title={cell.why}>
        <span className="shape" aria-hidden="true">
          {shape}
        </span>
        {tone === 'bad' ? <Link to={`/titles/${title}/${cell.platform}?view=findings`}>{word}</Link> : word}
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
