import { Link } from 'react-router';
import { Empty } from './states.js';

/** Where no tree read yet: how one is. */
export function NoTree({ title }: { title: string }) {
  return (
    <Empty>
      <p>
        No tree has been read yet. <Link to={`/titles/${title}/trees`}>Link a folder</Link> that this service
        may read, or, on a machine that has a checkout:
      </p>
      <pre className="mb-0">syndexa check DIR --title {title}</pre>
    </Empty>
  );
}
