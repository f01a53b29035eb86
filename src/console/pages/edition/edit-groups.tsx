import { counted } from '../../../core/text/counted.js';
import type { WiringAnswer } from '../../../api/trees.js';
import type { WiringGroup } from '../../../core/edits/model.js';
import { Diff } from '../../components/diff.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import type { Platform } from '../../../core/words/words.js';
import { useNetworks } from '../../queries.js';
import type { Question } from '../../tree-queries.js';
import { JustThis } from './just-this.js';

interface EditGroupsProps {
  wiring: WiringAnswer;
  platform: Platform;
  question: Question;
  /** The groups that are left out. */
  left: ReadonlySet<string>;
  choose: (id: string, on: boolean) => void;
}

/** The edits by what they fix: this edition's first, then what the same wiring does for the other. */
export function EditGroups({ wiring, platform, question, left, choose }: EditGroupsProps) {
  const mine = wiring.groups.filter((group) => group.platform === platform);
  const others = wiring.groups.filter((group) => group.platform !== platform);
  const cards = (groups: readonly WiringGroup[]) =>
    groups.map((group) => (
      <Group
        key={group.id}
        group={group}
        edits={wiring.edits}
        question={question}
        isOnly={wiring.groups.length === 1}
        on={!left.has(group.id)}
        choose={(on) => choose(group.id, on)}
      />
    ));
  return (
    <>
      {mine.length > 0 && <h2>The edits, by what they fix</h2>}
      {cards(mine)}
      {others.length > 0 && (
        <>
          <h2>And for {platformLabels[others[0]?.platform ?? platform]}, by the same wiring</h2>
          {cards(others)}
        </>
      )}
    </>
  );
}

/** Diffs up to this number of lines are shown at once; longer ones on request. */
const shortPatch = 40;

interface GroupProps {
  group: WiringGroup;
  edits: WiringAnswer['edits'];
  question: Question;
  /** Whether there is no other group: writing all is writing this one. */
  isOnly: boolean;
  on: boolean;
  choose: (on: boolean) => void;
}

function Group({ group, edits, question, isOnly, on, choose }: GroupProps) {
  const networks = useNetworks();
  const { id, label, network, rules, paths, patch } = group;
  const name = networks.data?.find((known) => known.id === network)?.name ?? network;
  const title = network === null ? label : `${label} · ${name}`;
  const copied = edits.flatMap(({ path, source }) =>
    source && paths.includes(path) ? [{ path, source }] : [],
  );
  const files = counted(paths.length, 'file');
  return (
    <div role="group" className={on ? 'edit-group' : 'edit-group left-out'} aria-label={title}>
      <header>
        <label>
          <input
            type="checkbox"
            className="form-check-input"
            checked={on}
            onChange={(event) => choose(event.currentTarget.checked)}
          />{' '}
          <strong>{title}</strong>
        </label>
        <span className="soft">{rules.length > 0 ? `fixes ${rules.join(', ')}` : 'keeps it current'}</span>
        <code className="part">{id}</code>
      </header>
      {copied.map(({ path, source }) => (
        <p key={path} className="mb-0">
          {source.name} is copied to <code>{path}</code>; a patch cannot contain it.
        </p>
      ))}
      {!isOnly && <JustThis question={question} pick={(one) => one.id === id} name={title} />}
      {patch !== '' && (
        <details open={patch.split('\n').length <= shortPatch}>
          <summary>
            {files}: <span className="place">{paths.join(', ')}</span>
          </summary>
          <Diff patch={patch} edits={edits.map((edit) => ({ ...edit, rules: [] }))} />
        </details>
      )}
    </div>
  );
}
