import { startExample } from '../examples.js';
import { unread, type StepDefinition } from '../model.js';

/** The start-up call in the app’s code. */
export const startUp: StepDefinition = {
  id: 'start-up',
  name: 'Call the start-up',
  requires: ['dependency', 'declarations'],
  per: 'network',
  applies: ({ profile }) => Object.keys(profile.code).length > 0,
  look(context) {
    const { reading, profile } = context;
    if (!reading) return unread(context);
    const found = reading.facts.filter(
      (fact) => fact.kind === 'call' && fact.network === profile.id && fact.action === 'start',
    );
    if (found.length > 0)
      return {
        state: 'done',
        why: 'The code calls it.',
        evidence: found.map(({ value, place }) => ({ what: value, place })),
      };
    const example = startExample(context);
    if (example === null)
      return { state: 'cannot-tell', why: 'The profile does not say how the call looks.' };
    return {
      state: 'to-do',
      why: `${example.why} Write ${example.text}`,
      ...(profile.site === undefined ? {} : { page: profile.site }),
    };
  },
};
