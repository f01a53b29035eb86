import { lazy, Suspense } from 'react';
import { Link, useParams } from 'react-router';
import type { QueryOf } from '../../../api/routes.js';
import { Empty, Failure, Loading, ProblemNote } from '../../components/states.js';
import { useAddress } from '../../components/use-address.js';
import { useFigures, useReleases, useTitles } from '../../queries.js';
import { Changes } from './changes.js';
import { Controls } from './controls.js';
import { FigureTable } from './figure-table.js';
import { tallySettings } from './settings.js';
import { Releases } from './releases.js';
import { Silence } from './silence.js';
import { Heading } from '../../components/heading.js';

const Charts = lazy(() => import('./charts.js').then(({ Charts: all }) => ({ default: all })));
/** The days that the chart shows; those that are looked at are chosen among them. */
const overview = '120d';

/** What placements earned, why it changed, and what is missing. */
export function TallyPage() {
  const { title } = useParams();
  const [search, change] = useAddress();
  const titles = useTitles();
  const settings = tallySettings(search, title === undefined);
  const about: QueryOf<'figures'> = {
    ...(title === undefined ? {} : { title }),
    ...(settings.into === null ? {} : { in: settings.into }),
  };
  const figures = useFigures({ ...about, by: settings.by, days: settings.days });
  const daily = useFigures({ ...about, by: 'day', days: overview });
  const releases = useReleases(title);
  const set = (name: string, value: string | null) => change({ [name]: value });
  if (figures.status === 'pending' || daily.status === 'pending') return <Loading what="the numbers" />;
  if (daily.status === 'error') return <Failure error={daily.error} again={() => void daily.refetch()} />;
  const name = titles.data?.find(({ id }) => id === title)?.name ?? title ?? 'all titles';
  return (
    <main className="page tally">
      <Heading>
        What {title === undefined ? 'do' : 'does'} {name} earn?
      </Heading>
      <p className="lede">
        <Link to="/tally/numbers">Where the numbers come from</Link>
      </p>
      {daily.data.days === null ? (
        <Empty>
          <p className="mb-0">
            No numbers are on record.{' '}
            <Link to="/tally/numbers">Fetch them from the networks, or import a table.</Link>
          </p>
        </Empty>
      ) : (
        <>
          <Controls settings={settings} set={set} isAll={title === undefined} />
          {figures.status === 'error' && <ProblemNote error={figures.error} />}
          {figures.data && (
            <>
              <Suspense fallback={<p className="soft">Drawing…</p>}>
                <Charts
                  daily={daily.data}
                  figures={figures.data}
                  releases={releases.data ?? []}
                  metric={settings.metric}
                  choose={(from, to) => set('days', `${from}..${to}`)}
                />
              </Suspense>
              <FigureTable figures={figures.data} />
              <Changes query={{ ...about, this: spanOf(figures.data.days) }} />
            </>
          )}
          <Silence title={title} />
          {title !== undefined && <Releases title={title} releases={releases.data ?? []} />}
        </>
      )}
    </main>
  );
}

function spanOf(days: { from: string; to: string } | null): string {
  return days === null ? '7d' : `${days.from}..${days.to}`;
}
