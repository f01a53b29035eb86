import { useMemo } from 'react';
import { Link } from 'react-router';
import { counted } from '../../../core/text/counted.js';
import { groupBy } from '../../../core/text/group-by.js';
import { Heading } from '../../components/heading.js';
import { Failure, Loading, ProblemNote } from '../../components/states.js';
import { useAddress } from '../../components/use-address.js';
import { usePortfolio, useWeek } from '../../queries.js';
import { FirstTitlePage } from '../first-title.js';
import { PortfolioControls } from './controls.js';
import { PortfolioTable } from './table.js';
import { rowsOf, viewOf, type Shown } from './view.js';

/** All titles: what is wired, whether it agrees, what changed, and what they earned. */
export function PortfolioPage() {
  const found = usePortfolio();
  const week = useWeek(undefined).data?.units;
  const [search, set] = useAddress();
  const view = viewOf(search);
  const titles = useMemo(() => {
    const ofTitle = groupBy(week ?? [], (unit) => unit.title ?? '');
    return found.entries.map((entry): Shown => ({ ...entry, week: ofTitle.get(entry.id) ?? [] }));
  }, [found.entries, week]);
  if (found.status === 'pending') return <Loading what="the titles" />;
  if (titles.length === 0 && found.error)
    return <Failure error={found.error} again={() => void found.refetch()} />;
  if (titles.length === 0) return <FirstTitlePage />;
  const rows = rowsOf(titles, view);
  const shown = rows.filter((row) => 'title' in row).length;
  return (
    <main className="page portfolio">
      <Heading>Which titles need work?</Heading>
      <p className="lede" role="status">
        {shown === titles.length
          ? `${counted(titles.length, 'title')}`
          : `${shown} of ${counted(titles.length, 'title')}`}
        {found.hasNextPage ? ', reading on…' : ''}
        {' · '}
        <Link to="/titles/new">new title</Link>
      </p>
      {found.error && <ProblemNote error={found.error} />}
      <PortfolioControls titles={titles} view={view} set={set} />
      <PortfolioTable rows={rows} view={view} set={set} />
    </main>
  );
}
