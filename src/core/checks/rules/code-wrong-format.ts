import { groupBy } from '../../text/group-by.js';
import { valueAt } from '../../text/own-values.js';
import { defineRule } from '../model.js';
import { placementNames } from '../../languages/common/placebook.js';
import type { Title } from '../../roster/model.js';
import type { CheckContext } from '../model.js';
import { callsOf, placeOf } from '../code.js';
import { editionScopes, fromFact, listed } from '../scope.js';

/** A unit of one format is given to the loader of another. */
export const wrongFormat = defineRule({
  meta: {
    id: 'code/wrong-format',
    severity: 'blocker',
    ifShipped: 'The network refuses the request, and the placement stays empty.',
    mend: 'Use a unit of this format, or the call that loads the format of the unit.',
    messages: {
      format: '{call} loads {loads}, but the format of the unit {unit} is {format}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        const loads = callsOf(scope, profile.id, 'load', 'view', 'identify');
        for (const here of groupBy(loads, placeOf).values()) {
          const [load] = here;
          if (!load) continue;
          const formats: string[] = [...new Set(here.flatMap(({ format }) => format ?? []))];
          const given = [...new Set(here.flatMap(({ code }) => code?.argument?.ids ?? []))];
          const written = load.code?.argument?.written ?? '';
          for (const unit of [...given, ...placebookNames(written, scope.title)]) {
            const format = formatOfUnit(context, scope.title, profile.id, unit);
            if (format === undefined || format.some((one) => formats.includes(one))) continue;
            const data = { call: load.value, loads: listed(formats), unit, format: listed(format) };
            yield { ...fromFact(load), message: 'format', data };
          }
        }
      }
    }
  },
});

/** Placements that an argument names through the placebook: `Placebook.stationOpen`. */
function placebookNames(written: string, title: Title): string[] {
  return Object.keys(title.placements).filter((name) =>
    placementNames(name).some((way) => new RegExp(`\\b${way.replace('.', '\\.')}\\b`).test(written)),
  );
}

/** The formats of a unit: of the placement that holds it (or is named so), or of a sample. Undefined when nobody knows. */
function formatOfUnit(
  { recogniser }: CheckContext,
  title: Title,
  network: string,
  unit: string,
): string[] | undefined {
  const own = valueAt(title.placements, unit);
  if (own) return [own.format];
  const holder = Object.values(title.placements).find(({ units }) =>
    Object.values(valueAt(units, network) ?? {}).some((stages) => Object.values(stages).includes(unit)),
  );
  if (holder) return [holder.format];
  const sample = recogniser
    .recognise(unit, network)
    .filter((found) => found.network === network && found.kind === 'unit')
    .flatMap((found) => found.sample ?? [])
    .flatMap(({ format }) => format ?? []);
  return sample.length > 0 ? [...new Set(sample)] : undefined;
}
