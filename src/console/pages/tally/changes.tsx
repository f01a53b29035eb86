import type { CompareAnswer } from '../../../api/tally.js';
import type { QueryOf } from '../../../api/routes.js';
import { amountText } from '../../../core/tally/money.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import { ProblemNote } from '../../components/states.js';
import { useComparison } from '../../queries.js';
import { signedText } from './format.js';

/** More rows than this are left to the command. */
const shown = 12;

/** Why revenue changed against as many days before. */
export function Changes({ query }: { query: QueryOf<'compareTally'> }) {
  const found = useComparison(query);
  if (found.status === 'pending') return null;
  if (found.status === 'error') return <ProblemNote error={found.error} />;
  const { rows, totals, days, against, title } = found.data;
  if (!days || !against) return null;
  return (
    <section>
      <h2>Why did it change?</h2>
      <p className="soft">
        {days.from} to {days.to} against {against.from} to {against.to}. Volume: the number of requests; fill:
        how many of them led to an impression; price: what an impression earned.
      </p>
      {totals.map((total) => (
        <div key={total.currency} className="ledger-scroll">
          <table className="ledger figures">
            <thead>
              <tr>
                <th>Placement</th>
                <th>Before</th>
                <th>{total.currency}</th>
                <th>Change</th>
                <th>Volume</th>
                <th>Fill</th>
                <th>Price</th>
              </tr>
            </thead>
            <tbody>
              {rows
                .filter(({ currency }) => currency === total.currency)
                .slice(0, shown)
                .map((row) => (
                  <tr key={row.unit}>
                    <th scope="row">
                      <Unit of={row} isOfTitle={title !== null} />
                    </th>
                    <ChangeCells of={row} />
                  </tr>
                ))}
            </tbody>
            <tfoot>
              <tr>
                <th scope="row">Total</th>
                <ChangeCells of={total} />
              </tr>
            </tfoot>
          </table>
        </div>
      ))}
    </section>
  );
}

interface UnitProps {
  of: CompareAnswer['rows'][number];
  /** Whether all rows are of one title. */
  isOfTitle: boolean;
}

function Unit({ of: { title, placement, unit, network, platform }, isOfTitle }: UnitProps) {
  return (
    <>
      {placement === null ? <code>{unit}</code> : isOfTitle ? placement : `${title}/${placement}`}
      <div className="soft fw-normal">
        {network}
        {platform && `, ${platformLabels[platform]}`}
      </div>
    </>
  );
}

interface Change {
  before: number;
  after: number;
  revenue: number;
  volume: number;
  fill: number;
  price: number;
}

function ChangeCells({ of: { before, after, revenue, volume, fill, price } }: { of: Change }) {
  return (
    <>
      <td>{amountText(before)}</td>
      <td>{amountText(after)}</td>
      {[revenue, volume, fill, price].map((value, at) => (
        <td key={at} className={value < 0 ? 'fell' : ''}>
          {signedText(value)}
        </td>
      ))}
    </>
  );
}
