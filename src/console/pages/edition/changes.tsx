import type { Finding } from '../../../core/checks/model.js';
import { compareSurveys, type FactChange } from '../../../core/facts/compare-surveys.js';
import type { Fact } from '../../../core/facts/model.js';
import { factDetail, factSubject, labelOf } from '../../../core/facts/show.js';
import { LedgerTable } from '../../components/ledger-table.js';
import type { Platform } from '../../../core/words/words.js';
import { Shown } from '../../components/shown.js';
import { Empty, SeverityMark } from '../../components/states.js';
import { useCheck, useSurvey, type Question } from '../../tree-queries.js';

/** What the last reading of the tree has otherwise than the one before it: values, and what is wrong. */
export function ChangesView({
  platform,
  question,
  before,
}: {
  platform: Platform;
  question: Question;
  before: string | null;
}) {
  if (before === null)
    return <Empty>The tree has not changed between readings yet: there is nothing to compare with.</Empty>;
  return <Changes platform={platform} question={question} earlier={{ ...question, snapshot: before }} />;
}

function Changes({
  platform,
  question,
  earlier,
}: {
  platform: Platform;
  question: Question;
  earlier: Question;
}) {
  const [was, is] = [useSurvey(earlier), useSurvey(question)];
  const [checkedBefore, checked] = [useCheck(earlier), useCheck(question)];
  const mine = (findings: readonly Finding[] = []) =>
    findings.filter((finding) => finding.platform === platform || finding.platform === null);
  const [old, now] = [mine(checkedBefore.data?.findings), mine(checked.data?.findings)];
  return (
    <Shown answer={was}>
      {(first) => (
        <Shown answer={is}>
          {(last) => (
            <>
              <FindingList
                name="New findings"
                findings={now.filter(
                  (one) => !old.some(({ fingerprint }) => fingerprint === one.fingerprint),
                )}
              />
              <FindingList
                name="Findings that are gone"
                findings={old.filter(
                  (one) => !now.some(({ fingerprint }) => fingerprint === one.fingerprint),
                )}
              />
              <Values
                changes={compareSurveys(
                  { facts: first.facts.filter((fact) => fact.platform === platform) },
                  { facts: last.facts.filter((fact) => fact.platform === platform) },
                )}
              />
            </>
          )}
        </Shown>
      )}
    </Shown>
  );
}

function FindingList({ name, findings }: { name: string; findings: readonly Finding[] }) {
  if (findings.length === 0) return null;
  return (
    <section aria-label={name}>
      <h2>
        {name} <span className="soft">{findings.length}</span>
      </h2>
      <ul>
        {findings.map(({ fingerprint, severity, rule, message }) => (
          <li key={fingerprint}>
            <SeverityMark severity={severity} /> {rule}: {message}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Values({ changes }: { changes: readonly FactChange[] }) {
  if (changes.length === 0) return <p className="soft">No value has changed.</p>;
  return (
    <>
      <h2>
        Values <span className="soft">{changes.length}</span>
      </h2>
      <LedgerTable heads={['What', 'Before', 'Now', 'In']}>
        {changes.map(({ was, is, variants }) => {
          const shown = is ?? was;
          return (
            <tr key={JSON.stringify([shown?.kind, was?.value, is?.value, shown?.name, variants])}>
              <th scope="row">
                {shown && labelOf(shown.kind)}
                <div className="soft fw-normal">{shown && factSubject(shown)}</div>
              </th>
              <td className="text-break" data-label="Before">
                <ValueOf fact={was} />
              </td>
              <td className="text-break" data-label="Now">
                <ValueOf fact={is} />
              </td>
              <td data-label="In">{variants.join(', ')}</td>
            </tr>
          );
        })}
      </LedgerTable>
    </>
  );
}

function ValueOf({ fact }: { fact: Fact | null }) {
  if (!fact) return <span className="soft">nothing</span>;
  const detail = factDetail(fact);
  return (
    <>
      <code>{fact.value}</code>
      {detail !== undefined && <span className="soft"> {detail}</span>}
    </>
  );
}
