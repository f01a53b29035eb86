import { useRef } from 'react';
import { Link } from 'react-router';
import { counted } from '../../../core/text/counted.js';
import type { PortfolioEntry } from '../../../core/portfolio/portfolio.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import { WeekSpark } from '../../components/spark.js';
import { SeverityMark, State } from '../../components/states.js';
import { Room, useDrawnRows } from '../../components/virtual.js';
import type { Row, Shown, View } from './view.js';
import { stateWords } from './words.js';

type SetView = (changes: Record<string, string | null>) => void;

const heads = [
  ['Title', 'name'],
  ['State', 'work'],
  ['Builds', null],
  ['Networks', null],
  ['Cells that agree', null],
  ['Changed since yesterday', 'changed'],
  ['Last seven days', 'earned'],
] as const;

/** The titles as a ledger; only the rows in view are drawn. */
export function PortfolioTable({ rows, view, set }: { rows: readonly Row[]; view: View; set: SetView }) {
  const scroll = useRef<HTMLDivElement>(null);
  const { items, before, after, measure } = useDrawnRows(scroll, rows.length, 52);
  if (rows.length === 0)
    return (
      <div className="empty">
        No title matches.{' '}
        <button
          type="button"
          className="btn btn-sm btn-outline-secondary"
          onClick={() => set({ find: null, state: null, network: null })}
        >
          Show all titles
        </button>
      </div>
    );
  return (
    <div className="ledger-scroll" ref={scroll} tabIndex={0} role="region" aria-label="Titles, scrollable">
      <table className="ledger cards">
        <thead>
          <tr>
            {heads.map(([head, order]) => (
              <th
                key={head}
                scope="col"
                aria-sort={order === view.order ? (order === 'name' ? 'ascending' : 'descending') : undefined}
              >
                {order === null ? (
                  head
                ) : (
                  <button type="button" onClick={() => set({ sort: order === 'work' ? null : order })}>
                    {head}
                    {order === view.order && <span aria-hidden="true"> {order === 'name' ? '↑' : '↓'}</span>}
                  </button>
                )}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <Room height={before} columns={heads.length} />
          {items.map(({ index }) => {
            const row = rows[index];
            if (!row) return null;
            if ('group' in row)
              return (
                <tr key={row.group} className="group" data-index={index} ref={measure}>
                  <th colSpan={heads.length} scope="rowgroup">
                    {stateWords[row.group].word} · {row.count}
                  </th>
                </tr>
              );
            return <TitleRow key={row.title.id} title={row.title} index={index} measure={measure} />;
          })}
          <Room height={after} columns={heads.length} />
        </tbody>
      </table>
    </div>
  );
}

function TitleRow({
  title,
  index,
  measure,
}: {
  title: Shown;
  index: number;
  measure: (row: Element | null) => void;
}) {
  const { id, name, state, networks, placements, changed, week } = title;
  const { word, shape, tone } = stateWords[state];
  return (
    <tr data-index={index} ref={measure}>
      <th scope="row">
        <Link to={`/titles/${id}`}>
          <bdi>{name}</bdi>
        </Link>
        <div className="soft fw-normal">
          {id} · {counted(placements, 'placement')}
        </div>
      </th>
      <td data-label="State">
        <State tone={tone} shape={shape}>
          {word}
        </State>
      </td>
      <td data-label="Builds">
        <Builds title={title} />
      </td>
      <td data-label="Networks">
        {networks.length === 0 ? <span className="soft">none</span> : <Networks networks={networks} />}
      </td>
      <td data-label="Cells that agree">
        <Agreement cells={title.cells} />
      </td>
      <td data-label="Changed since yesterday">
        <Changed changed={changed} />
      </td>
      <td data-label="Last seven days">
        <Link to={`/titles/${id}/tally`} aria-label={`What does ${name} earn?`} className="plain">
          <WeekSpark units={week} />
        </Link>
      </td>
    </tr>
  );
}

function Changed({ changed }: Pick<PortfolioEntry, 'changed'>) {
  if (!changed) return <span className="soft">—</span>;
  const { fields, at, who } = changed;
  return (
    <>
      {counted(fields, 'change')}
      <div className="soft">
        <time dateTime={at} title={new Date(at).toLocaleString()}>
          {new Date(at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })}
        </time>
        , {who.join(', ')}
      </div>
    </>
  );
}

function Builds({ title: { id, editions } }: { title: Shown }) {
  return editions.map(({ platform, summary, readAt }) => (
    <div key={platform} className="build">
      <Link to={`/titles/${id}/${platform}`}>{platformLabels[platform]}</Link>{' '}
      {summary === null || readAt === null ? (
        <span className="soft">not read yet</span>
      ) : summary.blocker + summary.warning + summary.note === 0 ? (
        <State tone="good" shape="●">
          clean
        </State>
      ) : (
        (['blocker', 'warning', 'note'] as const).map((severity) =>
          summary[severity] === 0 ? null : (
            <SeverityMark key={severity} severity={severity} count={summary[severity]} />
          ),
        )
      )}
    </div>
  ));
}

function Networks({ networks }: { networks: readonly string[] }) {
  return networks.map((network, at) => (
    <span key={network}>
      {at > 0 && ', '}
      <Link to={`/networks/${network}`}>{network}</Link>
    </span>
  ));
}

/** How many cells of the board agree: in numbers, and as a bar. */
function Agreement({ cells: { agree, wrong, open } }: { cells: PortfolioEntry['cells'] }) {
  const all = agree + wrong + open;
  if (all === 0) return <span className="soft">—</span>;
  const part = (count: number) => `${(count / all) * 100}%`;
  return (
    <>
      {agree} of {all}
      <span className="agreement" aria-hidden="true">
        <span className="is-good" style={{ width: part(agree) }} />
        <span className="is-open" style={{ width: part(open) }} />
        <span className="is-bad" style={{ width: part(wrong) }} />
      </span>
    </>
  );
}
