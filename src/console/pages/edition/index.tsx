import { NavLink, useParams, useSearchParams } from 'react-router';
import { platformLabels } from '../../../core/words/platform-labels.js';
import type { Platform } from '../../../core/words/words.js';
import { Failure, Loading } from '../../components/states.js';
import { useBoard, useTitle, useTrees } from '../../queries.js';
import type { Question } from '../../tree-queries.js';
import { EditsView } from './edits.js';
import { CarriesView } from './carries.js';
import { ChangesView } from './changes.js';
import { FindingsView } from './findings.js';
import { TakeOutView } from './take-out.js';
import { Heading } from '../../components/heading.js';
import { Interrupted } from '../../components/interrupted.js';
import { NoTree } from '../../components/no-tree.js';
import { NoPage } from '../../components/no-page.js';
import { ReadAgain } from '../../components/read-again.js';

const views = {
  wiring: 'What it contains',
  findings: 'What is wrong',
  edits: 'What would fix it',
  changes: 'What changed',
  out: 'Remove a network',
} as const;

/** One edition: what each variant would ship, what is wrong with it, and the edits that fix it. */
export function EditionPage() {
  const { title = '', platform: named } = useParams();
  const platform: Platform = named === 'ios' ? 'ios' : 'android';
  const [search] = useSearchParams();
  const view = (search.get('view') ?? 'wiring') as keyof typeof views;
  const record = useTitle(title);
  const board = useBoard(title);
  const linked = useTrees().data?.find((tree) => tree.title === title);
  const edition = board.data?.editions.find((candidate) => candidate.platform === platform);
  const question: Question | undefined =
    edition?.snapshot && record.data
      ? { snapshot: edition.snapshot, title, version: record.data.version }
      : undefined;
  if (record.status === 'pending' || board.status === 'pending') return <Loading what="the edition" />;
  if (record.status === 'error') return <Failure error={record.error} again={() => void record.refetch()} />;
  if (board.status === 'error') return <Failure error={board.error} again={() => void board.refetch()} />;
  if (named !== 'android' && named !== 'ios') return <NoPage />;
  const name = record.data.title.name;
  return (
    <main className="page">
      <Heading>
        What would the {platformLabels[platform]} build of {name} ship?
      </Heading>
      <div className="lede d-flex flex-wrap gap-3 align-items-center">
        <span>
          <code>{edition?.identifier ?? 'no identifier in the record'}</code>
          {edition?.tree && <>, as read from {edition.tree}</>}
        </span>
        {linked && <ReadAgain tree={linked.id} label="↻ Read the tree again" />}
      </div>
      <Interrupted title={title} />
      <nav className="subnav" aria-label="Views">
        {Object.entries(views).map(([key, label]) => (
          <NavLink key={key} to={`?view=${key}`} className={() => (key === view ? 'active' : '')}>
            {label}
          </NavLink>
        ))}
      </nav>
      {question ? (
        <View view={view} platform={platform} question={question} before={edition?.before ?? null} />
      ) : (
        <NoTree title={title} />
      )}
    </main>
  );
}

interface ViewProps {
  view: keyof typeof views;
  platform: Platform;
  question: Question;
  before: string | null;
}

function View({ view, platform, question, before }: ViewProps) {
  if (view === 'findings') return <FindingsView platform={platform} question={question} />;
  if (view === 'edits') return <EditsView platform={platform} question={question} />;
  if (view === 'changes') return <ChangesView platform={platform} question={question} before={before} />;
  if (view === 'out') return <TakeOutView question={question} />;
  return <CarriesView platform={platform} question={question} />;
}
