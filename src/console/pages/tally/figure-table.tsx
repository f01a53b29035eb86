import { counted } from '../../../core/text/counted.js';
import type { Figures, FiguresAnswer } from '../../../api/tally.js';
import { amountText } from '../../../core/tally/money.js';
import { IdText } from '../../components/id-text.js';
import { WeekSpark, type WeekUnit } from '../../components/spark.js';
import { useWeek } from '../../queries.js';
import { rateText, rowName, wholeText } from './format.js';
import { groupings } from './settings.js';

/** Figures as a ledger, one for each currency; the rows add up to the total. */
export function FigureTable({ figures }: { figures: FiguresAnswer }) {
  const { rows, totals, by } = figures;
  const week = useWeek(figures.title ?? undefined).data?.units ?? [];
  const sparkOf = (key: string, currency: string) =>
    week.filter(
      (one) =>
        one.currency === currency &&
        ((by === 'title' && one.title === key) || (by === 'placement' && nameIn(figures, one) === key)),
    );
  return (
    <section>
      {totals.map((total) => (
        <div key={total.currency} className="ledger-scroll">
          <table className="ledger figures">
            <thead>
              <tr>
                <th>{groupings[by]}</th>
                <th>Requests</th>
                <th>Fill</th>
                <th>Impressions</th>
                <th>Shown</th>
                <th>Clicks</th>
                <th>CTR</th>
                <th>{total.currency}</th>
                <th>eCPM</th>
                <th>Share</th>
              </tr>
            </thead>
            <tbody>
              {rows
                .filter(({ currency }) => currency === total.currency)
                .map((row) => (
                  <tr key={row.key}>
                    <th scope="row">
                      <RowName figures={figures} row={row} />
                      {sparkOf(row.key, row.currency).length > 0 && (
                        <div>
                          <WeekSpark units={sparkOf(row.key, row.currency)} />
                        </div>
                      )}
                    </th>
                    <Cells of={row} />
                  </tr>
                ))}
            </tbody>
            <tfoot>
              <tr>
                <th scope="row">Total</th>
                <Cells of={total} />
              </tr>
            </tfoot>
          </table>
        </div>
      ))}
      <Notes of={figures} />
    </section>
  );
}

function RowName({ figures, row }: { figures: FiguresAnswer; row: FiguresAnswer['rows'][number] }) {
  const name = rowName(figures, row.key, row.unit);
  if (row.unit === null) return name;
  return (
    <>
      <IdText id={row.unit} />
      <div className="soft fw-normal">{name}</div>
    </>
  );
}

/** A placement as rows of these figures name it. */
function nameIn({ title }: FiguresAnswer, { title: of, placement }: WeekUnit): string | null {
  if (placement === null) return null;
  return title === null ? `${of}/${placement}` : placement;
}

/** What has to be known to read them. */
function Notes({ of: { zones, unconverted, in: into } }: { of: FiguresAnswer }) {
  return (
    <p className="soft">
      {unconverted.map(({ currency, days }) => (
        <span key={currency}>
          There is no rate from {currency} into {into} for {counted(days, 'day')}: these amounts are listed by
          themselves.{' '}
        </span>
      ))}
      {into !== null && `Amounts were converted into ${into} by the rate of each day. `}
      Days are those of each network: {zones.map(({ network, zone }) => `${network} ${zone}`).join(', ')}.
    </p>
  );
}

function Cells({ of }: { of: Figures }) {
  return (
    <>
      <td>{wholeText(of.requests)}</td>
      <td>{rateText(of.fillRate)}</td>
      <td>{wholeText(of.impressions)}</td>
      <td>{rateText(of.showRate)}</td>
      <td>{wholeText(of.clicks)}</td>
      <td>{rateText(of.clickRate, 2)}</td>
      <td>{amountText(of.revenue)}</td>
      <td>{of.ecpm === null ? '–' : amountText(of.ecpm)}</td>
      <td>{rateText(of.share)}</td>
    </>
  );
}
