import { lastDay } from '../../checks/tally-scope.js';
import { dayText } from '../../tally/days.js';
import { sumOfLast } from '../../tally/signals.js';
import { valueAt } from '../../text/own-values.js';
import type { Evidence, StepDefinition } from '../model.js';

/** A placement reports if it made requests within this number of last days. */
const window = 7;

/** Every placement of the network reports numbers. */
export const earning: StepDefinition = {
  id: 'earning',
  name: 'See that it earns',
  requires: ['release-check'],
  per: 'network',
  applies: ({ profile }) => profile.report !== undefined,
  look({ tally, title, titleId, platform, profile }) {
    const last = tally && lastDay(tally.history, profile.id);
    if (!tally || last === undefined)
      return {
        state: 'to-do',
        why: `No numbers of ${profile.name} are on record.`,
        command: profile.report?.http
          ? `syndexa tally fetch --network ${profile.id}`
          : `syndexa tally import FILE --network ${profile.id}`,
      };
    const units = Object.entries(title.placements).flatMap(([placement, { units: all }]) => {
      const unit = valueAt(all, profile.id)?.[platform]?.production;
      const found = tally.history.units.find((one) => one.network === profile.id && one.unit === unit);
      return unit === undefined ? [] : [{ placement, asked: found ? sumOfLast(found.asked, window) : 0 }];
    });
    const until = `the week up to ${dayText(last)}`;
    const silent = units.filter(({ asked }) => asked === 0).map(({ placement }) => placement);
    const own = tally.findings.filter(
      (finding) => finding.platform === platform && finding.network === profile.id,
    );
    const evidence: Evidence[] = [
      ...own.map(({ message }) => ({ what: message, place: null })),
      ...units.map(({ placement, asked }) => ({
        what: `${placement}: ${asked} requests in ${until}`,
        place: null,
      })),
    ];
    const command = `syndexa tally silent ${titleId}`;
    if (silent.length > 0)
      return { state: 'to-do', why: `${silent.join(', ')} made no request in ${until}.`, evidence, command };
    if (own.length > 0) return { state: 'to-do', why: own[0]?.message ?? '', evidence, command };
    return { state: 'done', why: `Every placement made requests in ${until}.`, evidence };
  },
};
