import type { RehearsalReport, RehearsalRun } from '../../../core/rehearsal/report.js';
import { decidedBy, isRight, isSeen } from '../../../core/rehearsal/report.js';
import { verdictText } from '../../../core/rehearsal/words.js';
import { groupBy } from '../../../core/text/group-by.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import { State } from '../../components/states.js';

interface MatrixProps {
  report: RehearsalReport;
  at: string | null;
  placement: string | null;
  choose: (at: string, placement: string) => void;
}

/** Placements down, variants across; each cell says what became of the placement. */
export function Matrix({ report: { runs }, at, placement, choose }: MatrixProps) {
  const names = [...new Set(runs.flatMap((run) => run.placements.map((one) => one.placement)))];
  const groups = [...groupBy(runs, ({ platform, stage }) => `${platformLabels[platform]} ${stage}`)];
  return (
    <div className="ledger-scroll">
      <table className="ledger rehearsal-matrix">
        <thead>
          <tr>
            <th scope="col" rowSpan={2}>
              placement
            </th>
            {groups.map(([name, mine]) => (
              <th key={name} scope="colgroup" colSpan={mine.length} className="platform-start">
                {name}
              </th>
            ))}
          </tr>
          <tr>
            {groups.flatMap(([, mine]) =>
              mine.map((run, index) => (
                <th key={keyOf(run)} scope="col" className={index === 0 ? 'platform-start' : ''}>
                  {run.variant}
                </th>
              )),
            )}
          </tr>
        </thead>
        <tbody>
          {names.map((name) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              {groups.flatMap(([, mine]) =>
                mine.map((run, index) => (
                  <VerdictCell
                    key={keyOf(run)}
                    run={run}
                    name={name}
                    isFirst={index === 0}
                    isChosen={keyOf(run) === at && name === placement}
                    choose={() => choose(keyOf(run), name)}
                  />
                )),
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const keyOf = ({ platform, variant }: RehearsalRun): string => `${platform}/${variant}`;

interface CellProps {
  run: RehearsalRun;
  name: string;
  isFirst: boolean;
  isChosen: boolean;
  choose: () => void;
}

function VerdictCell({ run, name, isFirst, isChosen, choose }: CellProps) {
  const found = run.placements.find((one) => one.placement === name);
  const className = isFirst ? 'platform-start' : '';
  if (!found) return <td className={className}>—</td>;
  const { verdict, networks, format } = found;
  const tone = isRight(verdict, run.stage) ? 'good' : isSeen(verdict) ? 'open' : 'bad';
  const isAssumed = networks.some(({ assumed }) => assumed.length > 0);
  return (
    <td className={className}>
      <button type="button" className="verdict" aria-pressed={isChosen} onClick={choose} title={format}>
        <State tone={tone} shape={tone === 'good' ? '●' : tone === 'open' ? '▲' : '■'}>
          {verdictText(verdict, run.stage)}
        </State>
        <span className="soft">
          {decidedBy(found)}
          {isAssumed && ', assumed in part'}
        </span>
      </button>
    </td>
  );
}
