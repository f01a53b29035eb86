import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { useNavigate } from 'react-router';
import { counted } from '../../../core/text/counted.js';
import type { NetworkPlan } from '../../../api/networks.js';
import type { AnswerOf } from '../../../api/routes.js';
import { call, type CallError } from '../../api.js';
import { Diff } from '../../components/diff.js';
import { ProblemNote, State } from '../../components/states.js';

interface KeepProps {
  text: string;
  isChanged: boolean;
  forget: () => void;
}

/** What keeping the profile would replace, and what on record would not match it; then the button that keeps it. */
export function Keep({ text, isChanged, forget }: KeepProps) {
  const plan = useQuery<NetworkPlan, CallError>({
    queryKey: ['network-plan', text],
    queryFn: ({ signal }) => call('planNetwork', { body: { text }, signal }),
  });
  return (
    <section aria-label="Keep it">
      <h2>Keep it</h2>
      {plan.error && <ProblemNote error={plan.error} />}
      {plan.data && <Planned plan={plan.data} text={text} isChanged={isChanged} forget={forget} />}
    </section>
  );
}

function replacing({ replaces, patch, id, name }: NetworkPlan): string {
  if (replaces === 'nothing') return `${name} is new here, as ${id}.`;
  if (patch === '') return `The profile of ${id} is already in use as it is.`;
  return replaces === 'shipped'
    ? `It replaces the built-in profile of ${id}. Remove yours to use the built-in one again.`
    : `It replaces your profile of ${id}.`;
}

function Planned({ plan, text, isChanged, forget }: KeepProps & { plan: NetworkPlan }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [isDespite, setDespite] = useState(false);
  const add = useMutation<AnswerOf<'addNetwork'>, CallError>({
    mutationFn: () => call('addNetwork', { body: { text, despite: isDespite } }),
    onSuccess: async ({ profile }) => {
      forget();
      await navigate(`/networks/${profile.id}`);
      await client.invalidateQueries();
    },
  });
  const { misfits, patch, replaces } = plan;
  const isSame = replaces !== 'nothing' && patch === '';
  return (
    <>
      <p>{replacing(plan)}</p>
      {patch !== '' && <Diff patch={patch} edits={[]} />}
      {misfits.length > 0 && (
        <>
          <p>
            <State tone="bad" shape="■">
              {counted(misfits.length, 'field')} on record would not match it
            </State>
          </p>
          <ul>
            {misfits.map(({ title, field, message, fix }) => (
              <li key={`${title} ${field}`}>
                {title} <code>{field}</code>: {message} {fix}
              </li>
            ))}
          </ul>
          <Form.Check
            id="keep-despite"
            label="add it although these do not match"
            checked={isDespite}
            onChange={(event) => setDespite(event.target.checked)}
          />
        </>
      )}
      {add.error && <ProblemNote error={add.error} />}
      {!isSame && (
        <button
          type="button"
          className="btn btn-primary mt-2"
          disabled={add.isPending || !isChanged || (misfits.length > 0 && !isDespite)}
          onClick={() => add.mutate()}
        >
          {replaces === 'nothing' ? 'Keep the profile' : 'Replace the profile'}
        </button>
      )}
    </>
  );
}
