import { useEffect, useState } from 'react';
import Form from 'react-bootstrap/Form';
import { Link, NavLink, Outlet, useNavigate, useParams } from 'react-router';
import { call } from '../api.js';
import { applyTheme, storedTheme, type Theme } from '../theme.js';
import { useSession, useTitles } from '../queries.js';

/** The masthead with the title in hand, and the page below it. */
export function Layout() {
  const { title } = useParams();
  return (
    <>
      <header className="masthead">
        <Link to="/" className="brand">
          Syndexa
        </Link>
        <TitlePicker title={title} />
        <PageLinks title={title} />
        <SignOut />
        <ThemeSwitch />
      </header>
      <Outlet />
    </>
  );
}

function TitlePicker({ title }: { title: string | undefined }) {
  const titles = useTitles();
  const navigate = useNavigate();
  if (!titles.data || titles.data.length === 0) return null;
  return (
    <Form.Select
      size="sm"
      aria-label="Title"
      value={title ?? ''}
      onChange={(event) =>
        void navigate(event.target.value === '+' ? '/titles/new' : `/titles/${event.target.value}`)
      }
    >
      {title === undefined && <option value="">choose a title</option>}
      {titles.data.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
      <option value="+">new title…</option>
    </Form.Select>
  );
}

function PageLinks({ title }: { title: string | undefined }) {
  const platforms = useTitles().data?.find(({ id }) => id === title)?.platforms ?? [];
  return (
    <nav aria-label="Pages">
      {title !== undefined && (
        <>
          <NavLink end to={`/titles/${title}`}>
            Board
          </NavLink>
          {platforms.map((platform) => (
            <NavLink key={platform} to={`/titles/${title}/${platform}`}>
              {platform === 'android' ? 'Android' : 'iOS'}
            </NavLink>
          ))}
          <NavLink to={`/titles/${title}/rehearsal`}>Would it show?</NavLink>
          <NavLink to={`/titles/${title}/tally`}>Earnings</NavLink>
          <NavLink to={`/titles/${title}/steps`}>Steps</NavLink>
          <NavLink to={`/titles/${title}/record`}>Record</NavLink>
        </>
      )}
      <NavLink to="/tally">All earnings</NavLink>
      <NavLink to="/networks">Networks</NavLink>
    </nav>
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
