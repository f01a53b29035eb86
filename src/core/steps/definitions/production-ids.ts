import { counted } from '../../text/counted.js';
import { isWhereBuildLooks } from '../../facts/effective.js';
import { isIdFact } from '../../facts/model.js';
import { asEvidence, findingsOf, unread, type StepDefinition } from '../model.js';

/** The builds that ship carry the production IDs. */
export const productionIds: StepDefinition = {
  id: 'production-ids',
  name: 'Carry the production IDs',
  requires: ['units', 'declarations', 'terms'],
  per: 'network',
  look(context) {
    const { reading, expected, titleId } = context;
    if (!reading) return unread(context);
    const wrong = findingsOf(context, ['stage', 'unit-id', 'app-id']);
    if (wrong.length > 0)
      return {
        state: 'to-do',
        why: `${counted(wrong.length, 'ID is', 'IDs are')} missing or wrong.`,
        evidence: asEvidence(wrong),
        command: `syndexa wire DIR --title ${titleId} --write`,
      };
    const ids = new Set(expected.filter(({ stage }) => stage === 'production').map(({ id }) => id));
    const carried = reading.facts.filter(
      (fact) => isIdFact(fact) && isWhereBuildLooks(fact) && ids.has(fact.value),
    );
    if (carried.length === 0)
      return {
        state: 'to-do',
        why: 'No build carries a production ID yet.',
        command: `syndexa wire DIR --title ${titleId} --write`,
      };
    return {
      state: 'done',
      why: 'Every variant carries the IDs of its stage.',
      evidence: carried.map(({ value, variants, place }) => ({
        what: `${value} in ${variants.join(', ')}`,
        place,
      })),
    };
  },
};
