import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import Form from 'react-bootstrap/Form';
import { Link, useParams } from 'react-router';
import { counted } from '../../../core/text/counted.js';
import type { Step, StepState } from '../../../core/steps/model.js';
import { call, type CallError } from '../../api.js';
import { Choice, Controls, NetworkChoice } from '../../components/controls.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import { Empty, Failure, Loading, ProblemNote, State } from '../../components/states.js';
import { keys, useSteps } from '../../queries.js';
import { groupBy } from '../../../core/text/group-by.js';
import { Heading } from '../../components/heading.js';
import { useAddress } from '../../components/use-address.js';
import { useKept } from '../../components/use-kept.js';
import { LookUp } from './look-up.js';

const states: Record<StepState, { shape: string; word: string; tone: string }> = {
  done: { shape: '●', word: 'done', tone: 'good' },
  'to-do': { shape: '□', word: 'to do', tone: 'bad' },
  blocked: { shape: '·', word: 'blocked', tone: 'quiet' },
  'cannot-tell': { shape: '?', word: 'cannot tell', tone: 'open' },
};

/** The ordered steps of a title: what can be done now, what waits for that, and what is done. */
export function StepsPage() {
  const { title = '' } = useParams();
  const [search, set] = useAddress();
  const found = useSteps(title);
  if (found.status === 'pending') return <Loading what="the steps" />;
  if (found.status === 'error') return <Failure error={found.error} again={() => void found.refetch()} />;
  const { name, steps } = found.data;
  const [network, platform] = [search.get('network') ?? '', search.get('platform') ?? ''];
  const shown = steps.filter(
    (step) =>
      (network === '' || (step.network ?? 'edition') === network) &&
      (platform === '' || step.platform === platform),
  );
  const names = new Map(steps.map((step) => [step.step, step.name]));
  const of = (...wanted: StepState[]) => shown.filter(({ state }) => wanted.includes(state));
  const [now, blocked, done] = [of('to-do', 'cannot-tell'), of('blocked'), of('done')];
  const nextOnly = search.get('show') === 'next';
  return (
    <main className="page">
      <Heading>What is left to do for {name}, and in which order?</Heading>
      {steps.length === 0 ? (
        <Empty>
          No placement has a network yet. Add one on the <Link to={`/titles/${title}/record`}>record</Link>{' '}
          page; its steps follow from its profile.
        </Empty>
      ) : (
        <>
          <StepControls steps={steps} {...{ network, platform, nextOnly, set }} />
          <p className="lede" role="status">
            <strong>{done.length}</strong> of {counted(shown.length, 'step is', 'steps are')} done
          </p>
          {now.length === 0 && <Empty>All steps are done.</Empty>}
          <StepGroups title={title} steps={now} names={names} />
          {!nextOnly && (
            <>
              <Folded words="blocked until then" tone="quiet" count={blocked.length}>
                <StepGroups title={title} steps={blocked} names={names} />
              </Folded>
              <Folded words="done" tone="good" count={done.length}>
                <StepGroups title={title} steps={done} names={names} />
              </Folded>
            </>
          )}
        </>
      )}
      <LookUp title={title} />
    </main>
  );
}

interface StepControlsProps {
  steps: readonly Step[];
  network: string;
  platform: string;
  nextOnly: boolean;
  set: (changes: Record<string, string | null>) => void;
}

function StepControls({ steps, network, platform, nextOnly, set }: StepControlsProps) {
  const networks = new Map(
    steps.map((step) => [step.network ?? 'edition', step.networkName ?? 'the edition as a whole']),
  );
  return (
    <Controls name="Steps">
      <NetworkChoice value={network} set={(id) => set({ network: id })} networks={networks} />
      <Choice
        label="Platform"
        value={platform}
        set={(id) => set({ platform: id })}
        all="both platforms"
        options={Object.entries(platformLabels)}
      />
      <Form.Check
        type="switch"
        id="next-only"
        label="only what can be done now"
        checked={nextOnly}
        onChange={(event) => set({ show: event.target.checked ? 'next' : null })}
      />
    </Controls>
  );
}

/** Steps that need no attention now: a line that opens. */
function Folded({
  words,
  tone,
  count,
  children,
}: {
  words: string;
  tone: string;
  count: number;
  children: ReactNode;
}) {
  if (count === 0) return null;
  return (
    <details className="folded">
      <summary className={`state-${tone}`}>
        {count} {words}
      </summary>
      {children}
    </details>
  );
}

function StepGroups({ title, steps, names }: Omit<StepRowProps, 'step'> & { steps: readonly Step[] }) {
  const nameOf = ({ platform, networkName }: Step) =>
    `${platformLabels[platform]}: ${networkName ?? 'the edition as a whole'}`;
  return [...groupBy(steps, nameOf)].map(([group, mine]) => (
    <section key={group}>
      <h2>{group}</h2>
      <table className="ledger steps cards">
        <tbody>
          {mine.map((step) => (
            <StepRow
              key={`${step.platform} ${step.network} ${step.step}`}
              title={title}
              step={step}
              names={names}
            />
          ))}
        </tbody>
      </table>
    </section>
  ));
}

interface StepRowProps {
  title: string;
  step: Step;
  /** What each step is called. */
  names: ReadonlyMap<string, string>;
}

function StepRow({ title, step, names }: StepRowProps) {
  const { shape, word, tone } = states[step.state];
  const [first, ...more] = step.evidence;
  return (
    <tr>
      <td className="step-state">
        <State tone={tone} shape={shape}>
          {word}
        </State>
      </td>
      <th scope="row">{step.name}</th>
      <td>
        {step.state === 'blocked' ? (
          <span className="soft">first: {step.blockedBy.map((id) => names.get(id) ?? id).join(', ')}</span>
        ) : (
          <>
            {step.state !== 'done' && <div>{step.why}</div>}
            {first && <EvidenceLine title={title} step={step} evidence={first} />}
            {more.length > 0 && (
              <details>
                <summary className="soft">and {more.length} more</summary>
                {more.map((evidence, at) => (
                  <EvidenceLine key={at} title={title} step={step} evidence={evidence} />
                ))}
              </details>
            )}
            {step.state === 'done' && !first && <span className="soft">{step.why}</span>}
            {step.state !== 'done' && step.command !== null && (
              <div>
                <code>{step.command}</code>
              </div>
            )}
            {step.state !== 'done' && step.page !== null && (
              <div>
                <a href={step.page}>{step.page}</a>
              </div>
            )}
            <TickForm title={title} step={step} />
          </>
        )}
      </td>
    </tr>
  );
}

function EvidenceLine({
  title,
  step,
  evidence: { what, place },
}: {
  title: string;
  step: Step;
  evidence: Step['evidence'][number];
}) {
  return (
    <div className="soft evidence">
      {what}{' '}
      {place && (
        <Link to={`/titles/${title}/${step.platform}?view=findings`}>
          {place.path}:{place.line}
        </Link>
      )}
    </div>
  );
}

/** Says that a step is done which cannot be seen from here; or takes that back. */
function TickForm({ title, step }: { title: string; step: Step }) {
  const client = useQueryClient();
  const [note, setNote, forget] = useKept(['tick', title, step.step, step.platform, step.network].join(' '));
  const tick = useMutation<unknown, CallError, boolean>({
    mutationFn: (done) =>
      call('tick', {
        params: { title },
        body: { step: step.step, platform: step.platform, network: step.network, note: note || null, done },
      }),
    onSuccess: () => {
      forget();
      return client.invalidateQueries({ queryKey: keys.steps(title) });
    },
  });
  if (step.tick && step.state === 'done')
    return (
      <button type="button" className="btn btn-sm btn-outline-secondary" onClick={() => tick.mutate(false)}>
        take it back
      </button>
    );
  if (!step.tickable) return null;
  return (
    <>
      <form
        className="d-flex gap-2 mt-1"
        onSubmit={(event) => {
          event.preventDefault();
          tick.mutate(true);
        }}
      >
        <Form.Control
          size="sm"
          placeholder="who saw it, where"
          aria-label={`Note on ${step.name}, ${step.networkName ?? 'edition'}, ${platformLabels[step.platform]}`}
          value={note}
          onChange={(event) => setNote(event.target.value)}
        />
        <button type="submit" className="btn btn-sm btn-outline-primary text-nowrap">
          It is done
        </button>
      </form>
      {tick.error && <ProblemNote error={tick.error} />}
    </>
  );
}
