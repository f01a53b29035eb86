import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useMemo } from 'react';
import { Link, useParams } from 'react-router';
import { counted } from '../../../core/text/counted.js';
import type { LintAnswer } from '../../../api/networks.js';
import { call, type CallError } from '../../api.js';
import { FaultList } from '../../components/fault-list.js';
import { Heading } from '../../components/heading.js';
import { Empty, Failure, Loading, ProblemNote, State } from '../../components/states.js';
import { useKept } from '../../components/use-kept.js';
import { useSettled } from '../../components/use-settled.js';
import { useNetwork, useProfileSchema } from '../../queries.js';
import { Keep } from './keep.js';
import { Start } from './start.js';
import { Trial } from './trial.js';

// The editor is large: it is loaded when somebody edits.
const YamlEditor = lazy(() => import('../../components/yaml-editor.js'));

/** Describes a network that is not known yet: a draft first, then the profile itself. */
export function NewNetworkPage() {
  const [text, setText, forget] = useKept('profile');
  return (
    <main className="page">
      <Heading>Which network do you describe?</Heading>
      <p className="lede">
        A profile says what a network’s IDs look like and what a build needs, and why. Draft it from the
        network’s integration page or from a tree that already contains it; then correct it below. It remains
        a YAML file in the data folder.
      </p>
      <Start setText={setText} hasText={text.trim() !== ''} />
      <h2>The profile</h2>
      {text === '' ? (
        <Empty>
          <p>There is no draft yet.</p>
          <button
            type="button"
            className="btn btn-sm btn-outline-primary"
            onClick={() => setText('profile: 1\nid: ')}
          >
            Start with an empty profile
          </button>
        </Empty>
      ) : (
        <ProfileForm text={text} setText={setText} forget={forget} saved="" />
      )}
    </main>
  );
}

/** Changes the profile of a network that is known. */
export function EditNetworkPage() {
  const { network = '' } = useParams();
  const found = useNetwork(network);
  if (found.status === 'pending') return <Loading what="the profile" />;
  if (found.status === 'error') return <Failure error={found.error} again={() => void found.refetch()} />;
  const { profile, source, shipped } = found.data;
  return (
    <main className="page">
      <Heading>What should the profile of {profile.name} say?</Heading>
      <p className="lede">
        {shipped
          ? 'This profile is built in. If you save changes, your profile is used instead.'
          : 'A profile of your own, in the data folder.'}{' '}
        <Link to={`/networks/${network}`}>What it needs, and why.</Link>
      </p>
      <EditedProfile key={network} network={network} source={source} />
    </main>
  );
}

function EditedProfile({ network, source }: { network: string; source: string }) {
  const [text, setText, forget] = useKept(`profile ${network}`, source);
  return <ProfileForm text={text} setText={setText} forget={forget} saved={source} />;
}

interface ProfileFormProps {
  text: string;
  setText: (text: string) => void;
  forget: () => void;
  /** What is kept in the data folder, or shipped; empty for a new profile. */
  saved: string;
}

function ProfileForm({ text, setText, forget, saved }: ProfileFormProps) {
  const { settled, schema, lint, marked } = useLint(text);
  return (
    <>
      <Suspense fallback={<p className="soft">Loading the editor…</p>}>
        <YamlEditor label="The profile" text={text} setText={setText} problems={marked} schema={schema} />
      </Suspense>
      <p className="soft mt-1">
        <kbd>Ctrl</kbd> <kbd>Space</kbd> lists what is allowed at a place. Your text is kept in this tab.
        {text !== saved && (
          <>
            {' '}
            <button type="button" className="btn btn-sm btn-link p-0" onClick={forget}>
              {saved === '' ? 'Discard the draft' : 'Back to the saved profile'}
            </button>
          </>
        )}
      </p>
      <section aria-label="What is wrong with it">
        {lint.error && <ProblemNote error={lint.error} />}
        {lint.data && <Linted lint={lint.data} />}
      </section>
      {lint.data?.ok && (
        <>
          <Trial text={settled} needles={lint.data.needles} />
          <Keep key={settled} text={settled} isChanged={text !== saved} forget={forget} />
        </>
      )}
    </>
  );
}

function Linted({ lint: { ok, id, problems } }: { lint: LintAnswer }) {
  return (
    <>
      <p role="status">
        {ok ? (
          <State tone="good" shape="✔">
            The profile of {id} is right.
          </State>
        ) : (
          <State tone="bad" shape="■">
            {counted(problems.length, 'fault')}
          </State>
        )}
      </p>
      <FaultList faults={problems} />
    </>
  );
}

/** What is wrong with a profile once somebody has stopped typing, and the schema that it is completed from. */
function useLint(text: string) {
  const settled = useSettled(text);
  const schema = useProfileSchema();
  const lint = useQuery<LintAnswer, CallError>({
    queryKey: ['lint', settled],
    queryFn: ({ signal }) => call('lintNetwork', { body: { text: settled }, signal }),
    placeholderData: (before) => before,
  });
  const problems = lint.data?.problems;
  const marked = useMemo(
    () =>
      (problems ?? []).map(({ field, message, fix, place }) => ({
        message: [field && `${field}:`, message, fix].filter(Boolean).join(' '),
        place: place ?? { line: 1, column: 1 },
      })),
    [problems],
  );
  return { settled, schema: schema.data, lint, marked };
}
