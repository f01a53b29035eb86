import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { counted } from '../../../core/text/counted.js';
import type { CollectAnswer } from '../../../api/inventory.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import { Done, LeftOut, ProblemNote } from '../../components/states.js';
import { Working } from '../../components/working.js';
import { useLongCall } from '../../long-call.js';
import { LedgerTable } from '../../components/ledger-table.js';

/** More rows than this are counted only. */
const listed = 100;

/** Shows which units of a network belong to which placements, and takes their IDs once that was seen. */
export function Collect({ title, network }: { title: string; network: string }) {
  const [table, setTable] = useState<{ name: string; text: string }>();
  const [takeLow, setTakeLow] = useState(false);
  const call = useLongCall('collect');
  const body = { network, takeLow, ...(table ? { table: table.text } : {}) };
  const answer = call.answer;
  const fresh = (answer?.matches ?? []).filter(
    ({ isNew, confidence }) => isNew && (takeLow || confidence !== 'low'),
  );
  return (
    <>
      <TableField
        choose={(chosen) => {
          call.reset();
          setTable(chosen);
        }}
      />
      <Form.Check
        id="collect-low"
        className="mt-2"
        label="also accept matches of low confidence"
        checked={takeLow}
        onChange={(event) => setTakeLow(event.target.checked)}
      />
      <div className="actions">
        <button
          type="button"
          className="btn btn-sm btn-outline-primary"
          disabled={call.isPending}
          onClick={() => void call.run({ params: { title }, body: { ...body, dryRun: true } })}
        >
          {table ? `Read ${table.name}` : 'Fetch from the network'}
        </button>
      </div>
      {call.isPending && <Working progress={call.progress} cancel={call.cancel} />}
      {call.error && <ProblemNote error={call.error} />}
      {answer && <Found answer={answer} />}
      {answer && !answer.applied && (
        <button
          type="button"
          className="btn btn-primary"
          disabled={call.isPending}
          onClick={() => void call.run({ params: { title }, body: { ...body, plan: answer.plan } })}
        >
          {fresh.length === 0 ? 'Keep the list' : `Add ${counted(fresh.length, 'ID')} to the record`}
        </button>
      )}
      {answer?.applied && (
        <Done>
          {counted(answer.units, 'unit is', 'units are')} known of {answer.network};{' '}
          {counted(answer.taken, 'ID')} added to the record.
        </Done>
      )}
    </>
  );
}

function TableField({ choose }: { choose: (table: { name: string; text: string } | undefined) => void }) {
  return (
    <div className="fields">
      <div>
        <label className="form-label" htmlFor="collect-table">
          A table, instead of fetching from the network
        </label>
        <input
          id="collect-table"
          type="file"
          accept=".csv,.tsv,.txt"
          className="form-control"
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file) void file.text().then((text) => choose({ name: file.name, text }));
            else choose(undefined);
          }}
        />
      </div>
    </div>
  );
}

function Found({ answer }: { answer: CollectAnswer }) {
  const { units, network, title, matches, unmatched, unmatchedCount, elsewhereCount, odd, oddCount } = answer;
  const fresh = matches.filter(({ isNew }) => isNew);
  const others = elsewhereCount > 0 ? `, ${elsewhereCount} in other titles` : '';
  return (
    <section aria-label={`Units of ${network}`}>
      <p>
        {units} units of {network}; {matches.length - fresh.length} of them are in {title} already{others}.
      </p>
      {fresh.length + unmatched.length > 0 && <Units fresh={fresh} unmatched={unmatched} />}
      {unmatchedCount > listed && <p className="soft">{unmatchedCount - listed} more are not matched.</p>}
      <LeftOut rows={odd} />
      {oddCount > listed && <p className="soft">{oddCount - listed} more rows are invalid.</p>}
    </section>
  );
}

function Units({
  fresh,
  unmatched,
}: {
  fresh: CollectAnswer['matches'];
  unmatched: CollectAnswer['unmatched'];
}) {
  return (
    <LedgerTable heads={['Unit', 'Belongs to', 'Why']}>
      {fresh.slice(0, listed).map(({ unit, placement, platform, confidence, why }) => (
        <tr key={unit.id}>
          <th scope="row" className="place">
            {unit.id}
          </th>
          <td data-label="Belongs to">
            {placement}, {platformLabels[platform]}{' '}
            <span className={`state state-${confidence === 'low' ? 'open' : 'good'}`}>{confidence}</span>
          </td>
          <td className="soft">{why}</td>
        </tr>
      ))}
      {unmatched.slice(0, listed).map(({ unit, why, candidates }) => (
        <tr key={unit.id}>
          <th scope="row" className="place">
            {unit.id}
          </th>
          <td data-label="Belongs to" className="soft">
            nothing
            {candidates.length > 0 &&
              `; it could be ${candidates.map(({ placement, platform }) => `${placement} (${platformLabels[platform]})`).join(', ')}`}
          </td>
          <td className="soft">
            “{unit.name}”: {why}
          </td>
        </tr>
      ))}
    </LedgerTable>
  );
}
