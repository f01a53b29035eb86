import { lazy } from 'react';
import { Route, Routes } from 'react-router';
import { pages } from '../api/pages.js';
import { NoPage } from './components/no-page.js';
import { Layout } from './components/layout.js';
import { Failure, Loading } from './components/states.js';
import { useLiveChanges } from './live.js';
import { BoardPage } from './pages/board/index.js';
import { SignInPage } from './pages/sign-in.js';
import { useSession } from './queries.js';

// The board is what most people come for; the other pages are loaded when they are visited.
const AtNetworksPage = lazy(() =>
  import('./pages/at-networks/index.js').then((all) => ({ default: all.AtNetworksPage })),
);
const HistoryPage = lazy(() => import('./pages/history.js').then((all) => ({ default: all.HistoryPage })));
const AdoptPage = lazy(() => import('./pages/adopt.js').then((all) => ({ default: all.AdoptPage })));
const DocumentsPage = lazy(() =>
  import('./pages/documents/index.js').then((all) => ({ default: all.DocumentsPage })),
);
const EditionPage = lazy(() =>
  import('./pages/edition/index.js').then((all) => ({ default: all.EditionPage })),
);
const FirstTitlePage = lazy(() =>
  import('./pages/first-title.js').then((all) => ({ default: all.FirstTitlePage })),
);
const NetworkPage = lazy(() =>
  import('./pages/networks/network.js').then((all) => ({ default: all.NetworkPage })),
);
const NetworksPage = lazy(() =>
  import('./pages/networks/index.js').then((all) => ({ default: all.NetworksPage })),
);
const NewNetworkPage = lazy(() =>
  import('./pages/network-editor/index.js').then((all) => ({ default: all.NewNetworkPage })),
);
const EditNetworkPage = lazy(() =>
  import('./pages/network-editor/index.js').then((all) => ({ default: all.EditNetworkPage })),
);
const PortfolioPage = lazy(() =>
  import('./pages/portfolio/index.js').then((all) => ({ default: all.PortfolioPage })),
);
const NumbersPage = lazy(() =>
  import('./pages/numbers/index.js').then((all) => ({ default: all.NumbersPage })),
);
const RecordPage = lazy(() => import('./pages/record/index.js').then((all) => ({ default: all.RecordPage })));
const RehearsalPage = lazy(() =>
  import('./pages/rehearsal/index.js').then((all) => ({ default: all.RehearsalPage })),
);
const RulesPage = lazy(() => import('./pages/rules.js').then((all) => ({ default: all.RulesPage })));
const StepsPage = lazy(() => import('./pages/steps/index.js').then((all) => ({ default: all.StepsPage })));
const TallyPage = lazy(() => import('./pages/tally/index.js').then((all) => ({ default: all.TallyPage })));
const TreesPage = lazy(() => import('./pages/trees.js').then((all) => ({ default: all.TreesPage })));
const TracePage = lazy(() => import('./pages/trace.js').then((all) => ({ default: all.TracePage })));
const AppAdsPage = lazy(() =>
  import('./pages/app-ads/index.js').then((all) => ({ default: all.AppAdsPage })),
);
const AttributionPage = lazy(() =>
  import('./pages/attribution/index.js').then((all) => ({ default: all.AttributionPage })),
);
const TagsPage = lazy(() => import('./pages/tags/index.js').then((all) => ({ default: all.TagsPage })));
const PublisherPage = lazy(() =>
  import('./pages/publisher/index.js').then((all) => ({ default: all.PublisherPage })),
);
const SettingsPage = lazy(() =>
  import('./pages/settings/index.js').then((all) => ({ default: all.SettingsPage })),
);
const BulkPage = lazy(() => import('./pages/bulk/index.js').then((all) => ({ default: all.BulkPage })));

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
  const connection = useLiveChanges();
  return (
    <Routes>
      <Route element={<Layout connection={connection} />}>
        <Route index element={<PortfolioPage />} />
        <Route path={pages.newTitle} element={<FirstTitlePage />} />
        <Route path={pages.adopt} element={<AdoptPage />} />
        <Route path={pages.board} element={<BoardPage />} />
        <Route path={pages.record} element={<RecordPage />} />
        <Route path={pages.atNetworks} element={<AtNetworksPage />} />
        <Route path={pages.trees} element={<TreesPage />} />
        <Route path={pages.history} element={<HistoryPage />} />
        <Route path={pages.steps} element={<StepsPage />} />
        <Route path={pages.rehearsal} element={<RehearsalPage />} />
        <Route path={pages.tally} element={<TallyPage />} />
        <Route path={pages.allTallies} element={<TallyPage />} />
        <Route path={pages.numbers} element={<NumbersPage />} />
        <Route path={pages.edition} element={<EditionPage />} />
        <Route path={pages.networks} element={<NetworksPage />} />
        <Route path={pages.newNetwork} element={<NewNetworkPage />} />
        <Route path={pages.network} element={<NetworkPage />} />
        <Route path={pages.editNetwork} element={<EditNetworkPage />} />
        <Route path={pages.trace} element={<TracePage />} />
        <Route path={pages.documents} element={<DocumentsPage />} />
        <Route path={pages.rules} element={<RulesPage />} />
        <Route path={pages.rule} element={<RulesPage />} />
        <Route path={pages.appAds} element={<AppAdsPage />} />
        <Route path={pages.attribution} element={<AttributionPage />} />
        <Route path={pages.tags} element={<TagsPage />} />
        <Route path={pages.publisher} element={<PublisherPage />} />
        <Route path={pages.settings} element={<SettingsPage />} />
        <Route path={pages.bulk} element={<BulkPage />} />
        <Route path="*" element={<NoPage />} />
      </Route>
    </Routes>
  );
}
