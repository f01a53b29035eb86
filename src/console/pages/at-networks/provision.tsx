import { useState } from 'react';
import { counted } from '../../../core/text/counted.js';
import type { ProvisionAnswer } from '../../../api/inventory.js';
import { isWrite, stepWords, type Settle, type StepWords } from '../../../core/provision/words.js';
import { Choice, Controls, NetworkChoice } from '../../components/controls.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import { Done, LeftOut, ProblemNote, State } from '../../components/states.js';
import { Working } from '../../components/working.js';
import { useLongCall } from '../../long-call.js';

const marks: Record<StepWords['is'], { shape: string; word: string; tone: string }> = {
  create: { shape: '+', word: 'create', tone: 'good' },
  take: { shape: '←', word: 'take over', tone: 'good' },
  agrees: { shape: '=', word: 'agrees', tone: 'quiet' },
  differs: { shape: '≠', word: 'differs', tone: 'open' },
  'by-hand': { shape: '□', word: 'by hand', tone: 'bad' },
};

interface ProvisionProps {
  title: string;
  networks: readonly string[];
  names: ReadonlyMap<string, string>;
}

/** Shows what would be created at the networks, and creates it once that was seen. */
export function Provision({ title, networks, names }: ProvisionProps) {
  const [network, setNetwork] = useState('');
  const [settle, setSettle] = useState<NonNullable<Settle> | ''>('');
  const call = useLongCall('provision');
  const body = {
    ...(network === '' ? {} : { networks: [network] }),
    ...(settle === '' ? {} : { settle }),
  };
  const forgetting = (change: (value: string) => void) => (value: string) => {
    change(value);
    call.reset();
  };
  const plan = call.answer;
  const wins = body.settle;
  const writes = (plan?.networks ?? []).flatMap(({ steps }) => steps).filter((step) => isWrite(step, wins));
  return (
    <>
      <ProvisionControls
        networks={networks}
        names={names}
        network={network}
        settle={settle}
        setNetwork={forgetting(setNetwork)}
        setSettle={forgetting((side) => setSettle(side === 'roster' || side === 'partner' ? side : ''))}
        isPending={call.isPending}
        show={() => void call.run({ params: { title }, body: { ...body, dryRun: true } })}
      />
      {call.isPending && <Working progress={call.progress} cancel={call.cancel} />}
      {call.error && <ProblemNote error={call.error} />}
      {plan && <Plan plan={plan} settle={wins} />}
      {plan && !plan.applied && writes.length > 0 && (
        <button
          type="button"
          className="btn btn-primary"
          disabled={call.isPending}
          onClick={() => void call.run({ params: { title }, body: { ...body, plan: plan.plan } })}
        >
          Do {writes.length === 1 ? 'this step' : `these ${writes.length} steps`}
        </button>
      )}
      {plan?.applied && <Done>{counted(plan.done.length, 'step')} done; the IDs are in the record.</Done>}
    </>
  );
}

interface ProvisionControlsProps extends Omit<ProvisionProps, 'title'> {
  network: string;
  settle: string;
  setNetwork: (network: string) => void;
  setSettle: (side: string) => void;
  isPending: boolean;
  show: () => void;
}

function ProvisionControls({
  networks,
  names,
  network,
  settle,
  setNetwork,
  setSettle,
  isPending,
  show,
}: ProvisionControlsProps) {
  return (
    <Controls name="What to create">
      <NetworkChoice
        label="Networks to create at"
        value={network}
        set={setNetwork}
        networks={networks.map((id) => [id, names.get(id) ?? id] as const)}
      />
      <Choice
        label="Whose settings win"
        value={settle}
        set={setSettle}
        all="only show settings that differ"
        options={[
          ['roster', 'keep the record’s settings'],
          ['partner', 'keep the network’s settings'],
        ]}
      />
      <button type="button" className="btn btn-sm btn-outline-primary" disabled={isPending} onClick={show}>
        Show what would be created
      </button>
    </Controls>
  );
}

function Plan({ plan, settle }: { plan: ProvisionAnswer; settle: Settle }) {
  return plan.networks.map(({ network, name, steps, odd }) => (
    <section key={network} aria-label={`Plan for ${name}`}>
      <h3>{name}</h3>
      {steps.length === 0 && <p className="soft">Nothing to do.</p>}
      <table className="ledger cards">
        <tbody>
          {steps.map((step, at) => {
            const { is, what, detail } = stepWords(step, settle);
            const { shape, word, tone } = marks[is];
            return (
              <tr key={at}>
                <td>
                  <State tone={tone} shape={shape}>
                    {word}
                  </State>
                </td>
                <td>{platformLabels[step.platform]}</td>
                <td>{what}</td>
                <td className="soft">{is === 'agrees' ? '' : detail}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <LeftOut rows={odd} />
    </section>
  ));
}
