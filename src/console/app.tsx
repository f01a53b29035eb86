import { Navigate, Route, Routes } from 'react-router';
import { pages } from '../api/pages.js';
import { Failure, Loading } from './components/states.js';
import { Layout } from './components/layout.js';
import { AdoptPage } from './pages/adopt.js';
import { BoardPage } from './pages/board.js';
import { EditionPage } from './pages/edition/index.js';
import { NetworkPage, NetworksPage } from './pages/networks.js';
import { RehearsalPage } from './pages/rehearsal/index.js';
import { TallyPage } from './pages/tally/index.js';
import { StepsPage } from './pages/steps.js';
import { RecordPage } from './pages/record/index.js';
import { FirstTitlePage } from './pages/first-title.js';
import { SignInPage } from './pages/sign-in.js';
import { useLiveChanges, useSession, useTitles } from './queries.js';

/** The console, once it is known who uses it. */
export function App() {
  const session = useSession();
  if (session.status === 'pending') return <Loading what="the console" />;
  if (session.status === 'error' && session.error.problem.code === 'unauthenticated')
    return <SignInPage signedIn={() => void session.refetch()} />;
  if (session.status === 'error')
    return <Failure error={session.error} again={() => void session.refetch()} />;
  return <Pages />;
}

/** A page per question, each with its own address. */
function Pages() {
  useLiveChanges();
  return (
    <Routes>
      <Route element={<Layout />}>
        <Route index element={<Home />} />
        <Route path={pages.newTitle} element={<FirstTitlePage />} />
        <Route path={pages.adopt} element={<AdoptPage />} />
        <Route path={pages.board} element={<BoardPage />} />
        <Route path={pages.record} element={<RecordPage />} />
        <Route path={pages.steps} element={<StepsPage />} />
        <Route path={pages.rehearsal} element={<RehearsalPage />} />
        <Route path={pages.tally} element={<TallyPage />} />
        <Route path={pages.allTallies} element={<TallyPage />} />
        <Route path={pages.edition} element={<EditionPage />} />
        <Route path={pages.networks} element={<NetworksPage />} />
        <Route path={pages.network} element={<NetworkPage />} />
        <Route path="*" element={<NoPage />} />
      </Route>
    </Routes>
  );
}

/** The board of the first title; without titles, the way to the first one. */
function Home() {
  const titles = useTitles();
  if (titles.status === 'pending') return <Loading what="the titles" />;
  if (titles.status === 'error') return <Failure error={titles.error} again={() => void titles.refetch()} />;
  const [first] = titles.data;
  return first ? <Navigate to={`/titles/${first.id}`} replace /> : <FirstTitlePage />;
}

function NoPage() {
  return (
    <main className="page">
      <h1>There is no such page</h1>
      <p>
        The address leads nowhere. <a href="/">Go to the board.</a>
      </p>
    </main>
  );
}
