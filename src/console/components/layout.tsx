import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import Form from 'react-bootstrap/Form';
import { Link, NavLink, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { call } from '../api.js';
import type { Connection } from '../live.js';
import { applyTheme, storedTheme, type Theme } from '../theme.js';
import { useSession, useTitles } from '../queries.js';
import { ConnectionNote } from './connection-note.js';
import { platformLabels } from '../../core/words/platform-labels.js';
import { Loading } from './states.js';
import { useScrollKept } from './use-scroll-kept.js';

const Palette = lazy(() => import('./palette/index.js').then(({ Palette: all }) => ({ default: all })));

/** The masthead, the pages of the title in hand, and the page below them. */
export function Layout({ connection }: { connection: Connection }) {
  const { title } = useParams();
  const { pathname } = useLocation();
  const [isSearching, setSearching] = useState(false);
  const [isOpen, setOpen] = useState(false);
  useEffect(() => setOpen(false), [pathname]);
  useScrollKept();
  const [text, setText] = useState('');
  const search = () => {
    setText('');
    setSearching(true);
  };
  useSearchKeys(search);
  return (
    <>
      <a className="skip-link" href="#page">
        Skip to the page
      </a>
      <header className={isOpen ? 'masthead is-open' : 'masthead'}>
        <div className="masthead-row">
          <Link to="/" className="brand">
            Syndexa
          </Link>
          <button
            type="button"
            className="btn btn-sm btn-outline-secondary menu-button"
            aria-expanded={isOpen}
            aria-controls="menu"
            onClick={() => setOpen(!isOpen)}
          >
            ☰ menu
          </button>
          <button type="button" className="search-button" onClick={search}>
            <span>Find an ID, a title, a page…</span>
            <kbd>{isMac() ? '⌘ K' : 'Ctrl K'}</kbd>
          </button>
        </div>
        <div id="menu" className="masthead-menu">
          <AllTitles />
          <SignOut />
          <ThemeSwitch />
        </div>
        {title !== undefined && <TitleBar title={title} />}
      </header>
      <ConnectionNote connection={connection} />
      <div id="page" tabIndex={-1}>
        <Suspense fallback={<Loading what="the page" />}>
          <Outlet />
        </Suspense>
      </div>
      {isSearching && (
        <Suspense fallback={<PaletteToCome text={text} setText={setText} />}>
          <Palette title={title} text={text} setText={setText} close={() => setSearching(false)} />
        </Suspense>
      )}
    </>
  );
}

function AllTitles() {
  const { pathname } = useLocation();
  return (
    <nav aria-label="All titles">
      <NavLink end to="/">
        Titles
      </NavLink>
      <NavLink to="/tally">All earnings</NavLink>
      <NavLink to="/networks">Networks</NavLink>
      <NavLink to="/documents">Documents</NavLink>
      <NavLink to="/bulk">Many at once</NavLink>
      <NavLink to="/rules">Rules</NavLink>
      <MorePages key={pathname} />
    </nav>
  );
}

const more = [
  ['/publisher', 'Publisher'],
  ['/app-ads', 'app-ads.txt'],
  ['/attribution', 'Attribution'],
  ['/tags', 'Video tags'],
  ['/settings', 'This browser'],
] as const;

/** Pages that are needed now and then; it is closed again when one of them is visited. */
function MorePages() {
  const box = useRef<HTMLDetailsElement>(null);
  const close = () => box.current?.removeAttribute('open');
  return (
    <details
      ref={box}
      className="more"
      onBlur={(event) => !event.currentTarget.contains(event.relatedTarget) && close()}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        close();
        box.current?.querySelector('summary')?.focus();
      }}
    >
      <summary>More</summary>
      <div>
        {more.map(([to, name]) => (
          <NavLink key={to} to={to}>
            {name}
          </NavLink>
        ))}
      </div>
    </details>
  );
}

/** Until the palette is loaded, what is typed is kept for it. */
function PaletteToCome({ text, setText }: { text: string; setText: (text: string) => void }) {
  return (
    <div className="palette-to-come">
      <input
        className="form-control"
        aria-label="Find"
        autoFocus
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
    </div>
  );
}

function isMac(): boolean {
  return navigator.userAgent.includes('Mac');
}

/** Ctrl or ⌘ and K search from everywhere, a slash where nothing is typed. */
function useSearchKeys(search: () => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const isTyped =
        event.target instanceof Element &&
        event.target.closest('input, textarea, select, [contenteditable=true]');
      const isAsked =
        event.key.toLowerCase() === 'k' ? event.ctrlKey || event.metaKey : event.key === '/' && !isTyped;
      if (!isAsked || event.altKey) return;
      event.preventDefault();
      search();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  });
}

/** The title in hand: another one is chosen here, and its pages are reached. */
function TitleBar({ title }: { title: string }) {
  const titles = useTitles().data ?? [];
  const navigate = useNavigate();
  const own = titles.find(({ id }) => id === title);
  return (
    <div className="title-bar">
      <Form.Select
        size="sm"
        aria-label="Title"
        value={title}
        onChange={(event) => void navigate(`/titles/${event.target.value}`)}
      >
        {!own && <option value={title}>{title}</option>}
        {titles.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </Form.Select>
      <nav aria-label="Pages of the title">
        <NavLink end to={`/titles/${title}`}>
          Board
        </NavLink>
        {(own?.platforms ?? []).map((platform) => (
          <NavLink key={platform} to={`/titles/${title}/${platform}`}>
            {platformLabels[platform]}
          </NavLink>
        ))}
        <NavLink to={`/titles/${title}/rehearsal`}>Would it show?</NavLink>
        <NavLink to={`/titles/${title}/tally`}>Earnings</NavLink>
        <NavLink to={`/titles/${title}/steps`}>Steps</NavLink>
        <NavLink to={`/titles/${title}/record`}>Record</NavLink>
        <NavLink to={`/titles/${title}/networks`}>At the networks</NavLink>
        <NavLink to={`/titles/${title}/trees`}>Trees</NavLink>
        <NavLink to={`/titles/${title}/history`}>History</NavLink>
      </nav>
    </div>
  );
}

function SignOut() {
  const session = useSession();
  if (!session.data?.required) return null;
  const { who, role } = session.data;
  return (
    <button
      type="button"
      className="btn btn-sm btn-outline-secondary"
      title={`Signed in as ${who}, ${role}`}
      onClick={() => void call('signOut').then(() => session.refetch())}
    >
      Sign out {who}
    </button>
  );
}

function ThemeSwitch() {
  const [theme, setTheme] = useState<Theme>(storedTheme);
  useEffect(() => applyTheme(theme), [theme]);
  const other = theme === 'light' ? 'dark' : 'light';
  return (
    <button
      type="button"
      className="btn btn-sm btn-outline-secondary"
      onClick={() => {
        localStorage.setItem('theme', other);
        setTheme(other);
      }}
    >
      {other === 'dark' ? '◐ dark' : '◑ light'}
    </button>
  );
}
