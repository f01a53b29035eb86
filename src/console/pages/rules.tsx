import { Link, useParams } from 'react-router';
import type { AnswerOf } from '../../api/routes.js';
import { groupBy } from '../../core/text/group-by.js';
import { Choice, Controls, Finder } from '../components/controls.js';
import { Heading } from '../components/heading.js';
import { NoPage } from '../components/no-page.js';
import { Failure, Loading, SeverityMark } from '../components/states.js';
import { useAddress } from '../components/use-address.js';
import { useRules } from '../queries.js';
import { LedgerTable } from '../components/ledger-table.js';

type Rule = AnswerOf<'listRules'>[number];

const severityWords = [
  ['blocker', 'blockers'],
  ['warning', 'warnings'],
  ['note', 'notes'],
] as const;

/** What is checked: all rules, or one of them. */
export function RulesPage() {
  const { group, name } = useParams();
  const found = useRules();
  if (found.status === 'pending') return <Loading what="the rules" />;
  if (found.status === 'error') return <Failure error={found.error} again={() => void found.refetch()} />;
  if (group === undefined) return <AllRules rules={found.data} />;
  const rule = found.data.find(({ id }) => id === `${group}/${name}`);
  return rule ? <OneRule rule={rule} /> : <NoPage />;
}

function AllRules({ rules }: { rules: readonly Rule[] }) {
  const [search, set] = useAddress();
  const wanted = (search.get('find') ?? '').toLowerCase();
  const severity = search.get('severity');
  const shown = rules.filter(
    (rule) =>
      `${rule.id} ${rule.ifShipped}`.toLowerCase().includes(wanted) &&
      (severity === null || rule.severity === severity),
  );
  return (
    <main className="page">
      <Heading>What is checked?</Heading>
      <p className="lede" role="status">
        {shown.length} of {rules.length} rules
      </p>
      <Controls name="Rules">
        <Finder label="Find a rule" value={search.get('find') ?? ''} set={(find) => set({ find })} />
        <Choice
          label="Severity"
          value={severity ?? ''}
          set={(chosen) => set({ severity: chosen })}
          all="every severity"
          options={severityWords}
        />
      </Controls>
      {[...groupBy(shown, ({ id }) => id.split('/')[0] ?? '')].map(([name, own]) => (
        <section key={name}>
          <h2>{name}</h2>
          <LedgerTable heads={['Rule', 'Severity', 'If it is shipped']} className="rules">
            {own.map((rule) => (
              <tr key={rule.id}>
                <th scope="row">
                  <Link to={`/rules/${rule.id}`}>{rule.id.split('/')[1]}</Link>
                </th>
                <td>
                  <SeverityMark severity={rule.severity} />
                </td>
                <td>{rule.ifShipped}</td>
              </tr>
            ))}
          </LedgerTable>
        </section>
      ))}
    </main>
  );
}

function OneRule({
  rule: { id, severity, ifShipped, mend, byWiring, otherMends, messages },
}: {
  rule: Rule;
}) {
  return (
    <main className="page">
      <Heading>
        What does <span className="place">{id}</span> find?
      </Heading>
      <p className="lede">
        <SeverityMark severity={severity} /> · <Link to="/rules">all rules</Link>
      </p>
      <h2>What it says</h2>
      <ul>
        {Object.entries(messages).map(([name, text]) => (
          <li key={name}>{text}</li>
        ))}
      </ul>
      <h2>If it is shipped</h2>
      <p>{ifShipped}</p>
      <h2>How to fix it</h2>
      <ul>
        <li>{mend}</li>
        {Object.entries(otherMends ?? {}).map(([name, text]) => (
          <li key={name}>{text}</li>
        ))}
        {byWiring && <li>By wiring: {byWiring}</li>}
      </ul>
    </main>
  );
}
