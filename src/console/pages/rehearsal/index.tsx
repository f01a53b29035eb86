import { useQueryClient } from '@tanstack/react-query';
import { useParams, useSearchParams } from 'react-router';
import type { Finding } from '../../../core/checks/model.js';
import type { RehearsalReport } from '../../../core/rehearsal/report.js';
import { groupBy } from '../../../core/text/group-by.js';
import { NoTree } from '../../components/no-tree.js';
import { Shown } from '../../components/shown.js';
import { Failure, Loading, SeverityMark } from '../../components/states.js';
import { keys, useBoard } from '../../queries.js';
import { useRehearsal, type ToRehearse } from '../../tree-queries.js';
import { Controls, settingsIn, type SetSearch } from './controls.js';
import { Matrix } from './matrix.js';
import { SessionView } from './session.js';
import { Heading } from '../../components/heading.js';

/** What becomes of every ad call, on a simulated device against the simulated partner. */
export function RehearsalPage() {
  const { title = '' } = useParams();
  const [search, setSearch] = useSearchParams();
  const client = useQueryClient();
  const board = useBoard(title);
  const settings = settingsIn(title, search);
  const trees = board.data && treesOf(board.data.editions);
  const found = useRehearsal(trees && trees.length > 0 ? trees : undefined, settings);
  if (board.status === 'pending') return <Loading what="the title" />;
  if (board.status === 'error') return <Failure error={board.error} again={() => void board.refetch()} />;
  const set: SetSearch = (values) =>
    setSearch(
      (known) => {
        const next = new URLSearchParams(known);
        for (const [name, value] of Object.entries(values))
          if (value === null) next.delete(name);
          else next.set(name, value);
        return next;
      },
      { replace: true },
    );
  return (
    <main className="page rehearsal">
      <Heading>Would {board.data.name} show its ads?</Heading>
      {trees?.length === 0 ? (
        <NoTree title={title} />
      ) : (
        <>
          <Controls
            settings={settings}
            set={set}
            isBusy={found.isFetching}
            again={() => void client.invalidateQueries({ queryKey: keys.rehearsal(title) })}
          />
          <Shown answer={found}>{(report) => <Report report={report} search={search} set={set} />}</Shown>
        </>
      )}
    </main>
  );
}

/** Editions of one tree are rehearsed together. */
function treesOf(
  editions: readonly { platform: 'android' | 'ios'; snapshot: string | null }[],
): ToRehearse[] {
  const read = editions.filter(({ snapshot }) => snapshot !== null);
  return [...groupBy(read, ({ snapshot }) => snapshot ?? '')].map(([snapshot, mine]) => ({
    snapshot,
    platforms: mine.map(({ platform }) => platform),
  }));
}

interface Shown {
  report: RehearsalReport;
  search: URLSearchParams;
  set: SetSearch;
}

function Report({ report, search, set }: Shown) {
  const at = search.get('at');
  const placement = search.get('placement');
  const run = report.runs.find(({ platform, variant }) => `${platform}/${variant}` === at);
  return (
    <>
      <p className="soft">
        {report.scenario}, seed {report.seed}, against{' '}
        {report.partner === 'running'
          ? 'the running partner'
          : 'a temporary partner that knows the IDs on record'}
        {report.clean ? ': every placement shows an ad, and nothing was found.' : '.'}
      </p>
      <Matrix
        report={report}
        at={at}
        placement={placement}
        choose={(where, name) => set({ at: where, placement: name })}
      />
      {run && (
        <SessionView
          key={`${at} ${report.scenario} ${report.seed}`}
          run={run}
          device={report.device}
          placement={placement}
        />
      )}
      <Findings findings={report.findings} />
    </>
  );
}

function Findings({ findings }: { findings: readonly Finding[] }) {
  if (findings.length === 0) return null;
  return (
    <section>
      <h2>What it found</h2>
      <ul className="rehearsal-findings">
        {findings.map(({ fingerprint, severity, rule, message, mend, place }) => (
          <li key={fingerprint}>
            <SeverityMark severity={severity} /> {message}
            <div className="soft">
              {mend} <code>{rule}</code>
              {place && (
                <>
                  {' '}
                  <code>
                    {place.path}:{place.line}
                  </code>
                </>
              )}
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}
