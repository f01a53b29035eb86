import { moneyText } from '../../../core/tally/money.js';
import { ProblemNote, SeverityMark, State } from '../../components/states.js';
import { useSilence } from '../../queries.js';

/** What is missing in the numbers, with the money at stake. */
export function Silence({ title }: { title: string | undefined }) {
  const found = useSilence(title);
  if (found.status === 'pending') return null;
  if (found.status === 'error') return <ProblemNote error={found.error} />;
  const { findings } = found.data;
  return (
    <section>
      <h2>What earns nothing?</h2>
      {findings.length === 0 ? (
        <p>
          <State tone="good" shape="●">
            nothing stopped: every placement reports as usual
          </State>
        </p>
      ) : (
        <ul className="rehearsal-findings">
          {findings.map(({ fingerprint, title: of, severity, rule, message, mend, stake }) => (
            <li key={`${of} ${fingerprint}`}>
              <SeverityMark severity={severity} />{' '}
              {stake && stake.micros > 0 && (
                <strong>about {moneyText(stake.micros, stake.currency)} in thirty days: </strong>
              )}
              {title === undefined && `${of ?? 'no title'}: `}
              {message}
              <div className="soft">
                {mend} <code>{rule}</code>
              </div>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
