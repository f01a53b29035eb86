import { valueAt } from '../../text/own-values.js';
import { isWhereBuildLooks } from '../../facts/effective.js';
import type { Fact } from '../../facts/model.js';
import { loadExample } from '../examples.js';
import { unread, type StepContext, type StepDefinition } from '../model.js';

/** Whether code names a placement by the ID that belongs to the other platform: it is named, and still to be fixed. */
function isOthers({ platform, profile, title, expected }: StepContext, { kind, value }: Fact): boolean {
  if (kind !== 'unit-id' || expected.some(({ id }) => id === value)) return false;
  const other = platform === 'android' ? 'ios' : 'android';
  return Object.values(title.placements).some(({ units }) =>
    Object.values(valueAt(units, profile.id)?.[other] ?? {}).includes(value),
  );
}

/** Every placement of the network named in the app’s code. */
export const placementsInCode: StepDefinition = {
  id: 'placements-in-code',
  name: 'Name the placements in code',
  requires: ['units', 'start-up'],
  per: 'network',
  look(context) {
    const { reading, expected, profile, title } = context;
    if (!reading) return unread(context);
    const wanted = [...new Set(expected.flatMap(({ placement }) => placement ?? []))];
    const named = reading.facts.filter(
      (fact) =>
        fact.placement !== undefined &&
        (fact.kind === 'placement-use' || (fact.kind === 'unit-id' && fact.carrier !== 'placebook')) &&
        isWhereBuildLooks(fact),
    );
    const uses = named.filter((fact) => !isOthers(context, fact));
    const open = wanted.filter((name) => !uses.some(({ placement }) => placement === name));
    const evidence = uses
      .filter(({ placement }) => wanted.includes(placement ?? ''))
      .map(({ value, place }) => ({ what: value, place }));
    if (wanted.length > 0 && open.length === 0)
      return { state: 'done', why: 'The code names every one of them.', evidence };
    const [first = ''] = open;
    const others = named.find((fact) => fact.placement === first && isOthers(context, fact));
    if (others)
      return {
        state: 'to-do',
        why: `The code names ${first} by ${others.value}, the ID of the other platform. The placebook has a constant with the right one.`,
        evidence: [{ what: others.value, place: others.place }, ...evidence],
      };
    const example = loadExample(context, valueAt(title.placements, first)?.format, first);
    return {
      state: 'to-do',
      why: `No code names ${open.join(', ')}. The placebook has a constant for each${example === null ? '.' : `: ${example}`}`,
      evidence,
      ...(profile.site === undefined ? {} : { page: profile.site }),
    };
  },
};
