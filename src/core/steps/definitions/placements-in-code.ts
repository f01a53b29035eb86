import { loadExample } from '../examples.js';
import { unread, type StepDefinition } from '../model.js';

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
    const uses = reading.facts.filter(
      (fact) =>
        fact.placement !== undefined &&
        (fact.kind === 'placement-use' || (fact.kind === 'unit-id' && fact.standsIn !== 'placebook')),
    );
    const open = wanted.filter((name) => !uses.some(({ placement }) => placement === name));
    const evidence = uses
      .filter(({ placement }) => wanted.includes(placement ?? ''))
      .map(({ value, place }) => ({ what: value, place }));
    if (wanted.length > 0 && open.length === 0)
      return { state: 'done', why: 'The code names every one of them.', evidence };
    const [first = ''] = open;
    const example = loadExample(context, title.placements[first]?.format, first);
    return {
      state: 'to-do',
      why: `No code names ${open.join(', ')}. The placebook has a constant for each${example === null ? '.' : `: ${example}`}`,
      evidence,
      ...(profile.site === undefined ? {} : { page: profile.site }),
    };
  },
};
