import { Link } from 'react-router';
import { Heading } from './heading.js';

/** Where an address leads nowhere. */
export function NoPage() {
  return (
    <main className="page">
      <Heading>There is no such page</Heading>
      <p>
        The address leads nowhere. <Link to="/">Go to the titles.</Link>
      </p>
    </main>
  );
}
