import { stepDown } from '../../tally/signals.js';
import { defineRule, type CheckContext } from '../model.js';
import { dayText } from '../../tally/days.js';
import type { UnitHistory } from '../../tally/history.js';
import { fromTallied, namesOf, percentText, reportingUnits, type TalliedUnit } from '../tally-scope.js';

type Reporting = TalliedUnit & { history: UnitHistory };

/** How many days later a release may show in the numbers. */
const within = 3;

/** Requests fell when a version went out, and stayed low. */
export const stepAtRelease = defineRule({
  meta: {
    id: 'tally/step-at-release',
    severity: 'warning',
    ifShipped:
      'It is shipped: the version lost part of what the placement earned, and every user who updates loses more.',
    mend: 'Compare the tree of {version} with the one before it where {placement} is loaded: syndexa check DIR --title {title} --against SNAPSHOT, and rehearse both.',
    messages: {
      fell: 'On {on}, the requests of {placement} to {network} fell to {left} within days of {version} ({day}), and have stayed there for {days} days. Weekdays, and what other placements did, are taken into account.',
    },
    needsTitle: true,
  },
  *run(context) {
    const units = reportingUnits(context);
    for (const unit of units) {
      const found = fallAfterRelease(context, unit, units);
      if (!found) continue;
      const { step, version, day } = found;
      yield {
        ...fromTallied(unit),
        message: 'fell',
        data: { ...namesOf(unit), version, day: dayText(day) },
        changing: { left: percentText(step.left), days: String(step.days) },
      };
    }
  },
});

/** The step of the newest release that was followed by one. A unit that is silent altogether is another matter. */
function fallAfterRelease(
  { tally }: CheckContext,
  { history, platform }: Reporting,
  units: readonly Reporting[],
) {
  if ((history.asked.at(-1) ?? 0) === 0) return undefined;
  const own = (tally?.releases ?? []).filter((release) => release.platform === platform);
  const others = units.filter((other) => other.platform !== platform).map((other) => other.history);
  for (const { version, day } of own.sort((a, b) => b.day - a.day))
    for (let after = 0; after <= within; after++) {
      const at = day + after - history.from;
      if (at < 1 || at >= history.asked.length) continue;
      const step = stepDown(history.asked, {
        from: history.from,
        at,
        others: () => others.map((other) => aligned(other, history)),
      });
      if (step) return { step, version, day };
    }
  return undefined;
}

/** The requests of another unit on the days of this one. */
function aligned(other: UnitHistory, { from, asked }: UnitHistory): (number | null)[] {
  return asked.map((_, at) => other.asked[from + at - other.from] ?? null);
}
