import { isWhereBuildLooks } from '../../facts/effective.js';
import { labelOf } from '../../facts/show.js';
import { asEvidence, findingsOf, unread, type StepDefinition } from '../model.js';

/** App ID, permissions, keys and attribution in the manifest or the property list. */
export const declarations: StepDefinition = {
  id: 'declarations',
  name: 'Declare what the SDK needs',
  requires: ['app', 'dependency'],
  per: 'network',
  look(context) {
    const { reading, profile, titleId } = context;
    if (!reading) return unread(context);
    const wrong = findingsOf(context, ['app-id', 'manifest', 'attribution', 'companion']);
    if (wrong.length > 0)
      return {
        state: 'to-do',
        why: `${wrong.length} of its declarations ${wrong.length === 1 ? 'is' : 'are'} missing or wrong.`,
        evidence: asEvidence(wrong),
        command: `syndexa wire DIR --title ${titleId} --write`,
      };
    const facts = reading.facts.filter(
      (fact) =>
        ['app-id', 'attribution-id', 'companion'].includes(fact.kind) &&
        fact.network === profile.id &&
        isWhereBuildLooks(fact),
    );
    return {
      state: 'done',
      why: 'Everything that it requires is declared.',
      evidence: facts.map(({ kind, value, place }) => ({ what: `${labelOf(kind)} ${value}`, place })),
    };
  },
};
