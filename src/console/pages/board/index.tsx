import { Link, useParams } from 'react-router';
import type { BoardEdition } from '../../../core/board/model.js';
import { Heading } from '../../components/heading.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import { Empty, Failure, Loading, SeverityMark, State } from '../../components/states.js';
import { useBoard } from '../../queries.js';
import { Interrupted } from '../../components/interrupted.js';
import { Ledger } from './ledger.js';

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
          <State tone="good" shape="●">
            good: every expected ID is in the record and in the build
          </State>
        ) : (
          <>Each cell shows the ID in the record, and whether the tree that was last read would build it.</>
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
            <Link to={`/titles/${title}/record`}>record page</Link>, or{' '}
            <Link to={`/bulk?title=${title}`}>paste a table of them</Link>. In a terminal:
          </p>
          <pre>syndexa id set {title} ID --network NETWORK --platform android</pre>
        </Empty>
      ) : (
        <Ledger board={board.data} />
      )}
    </main>
  );
}

function EditionSummary({ title, edition }: { title: string; edition: BoardEdition }) {
  const { platform, identifier, found, tree, readAt, summary } = edition;
  const look = summary === null ? 'is-open' : summary.blocker > 0 ? 'is-bad' : 'is-good';
  return (
    <section className={look} aria-label={platformLabels[platform]}>
      <strong>{platformLabels[platform]}</strong> <code>{identifier}</code>
      {found !== null && found !== identifier && (
        <div>
          <State tone="bad" shape="✕">
            the build says <code>{found}</code>
          </State>
        </div>
      )}
      <div>
        {summary === null ? (
          <State tone="open" shape="○">
            no tree read yet
          </State>
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
          <Link to={`/titles/${title}/trees`}>link a folder</Link>
        ) : (
          `read from ${tree}, ${new Date(readAt ?? '').toLocaleString()}`
        )}
      </div>
    </section>
  );
}
