import './without-eval.js';
import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import 'bootstrap/dist/css/bootstrap.min.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter } from 'react-router';
import { CallError } from './api.js';
import { App } from './app.js';
import { keys } from './queries.js';
import { applyTheme, storedTheme } from './theme.js';
import './styles/base.css';
import './styles/ledger.css';
import './styles/evidence.css';
import './styles/controls.css';
import './styles/pages.css';
import './styles/rehearsal.css';
import './styles/tally.css';
import './styles/shell.css';
import './styles/parts.css';
import './styles/lists.css';
import './styles/palette.css';
import './styles/print.css';

// A session that ended is noticed by whatever is asked next: then the sign-in page takes over.
const noticeSignedOut = (error: unknown) => {
  if (error instanceof CallError && error.problem.code === 'unauthenticated')
    void client.resetQueries({ queryKey: keys.session });
};
const client: QueryClient = new QueryClient({
  queryCache: new QueryCache({
    onError: (error, { queryKey }) => {
      if (queryKey[0] !== keys.session[0]) noticeSignedOut(error);
    },
  }),
  mutationCache: new MutationCache({ onError: noticeSignedOut }),
  // The service announces changes, so an answer stays fresh for a while and parts of a page share one request.
  defaultOptions: { queries: { retry: false, refetchOnWindowFocus: false, staleTime: 10_000 } },
});
// Before the first render, so that the sign-in page has it too.
applyTheme(storedTheme());
const root = document.getElementById('root');
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <BrowserRouter>
          <App />
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  );
}
