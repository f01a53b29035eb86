import { useEffect, useState } from 'react';
import Form from 'react-bootstrap/Form';
import { Link, NavLink, Outlet, useNavigate, useParams } from 'react-router';
import { call } from '../api.js';
import { applyTheme, storedTheme, type Theme } from '../theme.js';
import { useSession, useTitles } from '../queries.js';

/** The masthead with the title in hand, and the page below it. */
export function Layout() {
  const { title } = useParams();
  const titles = useTitles();
  const session = useSession();
  const navigate = useNavigate();
  const [theme, setTheme] = useState<Theme>(storedTheme);
  useEffect(() => applyTheme(theme), [theme]);
  const platforms = titles.data?.find(({ id }) => id === title)?.platforms ?? [];
  const other = theme === 'light' ? 'dark' : 'light';
  return (
    <>
      <header className="masthead">
        <Link to="/" className="brand">
          Syndexa
        </Link>
        {titles.data && titles.data.length > 0 && (
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
        )}
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
              <NavLink to={`/titles/${title}/steps`}>Steps</NavLink>
              <NavLink to={`/titles/${title}/record`}>Record</NavLink>
            </>
          )}
          <NavLink to="/networks">Networks</NavLink>
        </nav>
        {session.data?.required && (
          <button
            type="button"
            className="btn btn-sm btn-outline-secondary"
            title={`Signed in as ${session.data.who}, ${session.data.role}`}
            onClick={() => void call('signOut').then(() => session.refetch())}
          >
            Sign out {session.data.who}
          </button>
        )}
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
      </header>
      <Outlet />
    </>
  );
}
