import { Heading } from '../../components/heading.js';
import { useAddress } from '../../components/use-address.js';
import { CopyTitle } from './copy-title.js';
import { EnrolMany } from './enrol-many.js';
import { PasteIds } from './paste-ids.js';
import { RenamePlacements } from './rename-placements.js';

const jobs = {
  ids: { label: 'Set IDs from a table', Job: PasteIds },
  rename: { label: 'Rename placements', Job: RenamePlacements },
  copy: { label: 'Copy a title', Job: CopyTitle },
  enrol: { label: 'Use a network in many titles', Job: EnrolMany },
} as const;

function isJob(name: string): name is keyof typeof jobs {
  return Object.hasOwn(jobs, name);
}

/** Changes of many fields at once. Each is shown field by field first, and is made completely or not at all. */
export function BulkPage() {
  const [search, set] = useAddress();
  const asked = search.get('do') ?? '';
  const job = isJob(asked) ? asked : 'ids';
  const { Job } = jobs[job];
  return (
    <main className="page">
      <Heading>What should change in many places at once?</Heading>
      <p className="lede">
        You see every field before it changes. All changes are made, or none, and each title’s history lists
        them.
      </p>
      <div className="choices mb-3" role="group" aria-label="What to do">
        {Object.entries(jobs).map(([id, { label }]) => (
          <button key={id} type="button" aria-pressed={id === job} onClick={() => set({ do: id })}>
            {label}
          </button>
        ))}
      </div>
      <Job key={job} />
    </main>
  );
}
