import { isWhereBuildLooks } from '../../facts/effective.js';
import { sameAddress } from '../../stacks/android/survey/repositories.js';
import { unread, type StepDefinition } from '../model.js';

/** The repositories that the SDK comes from. */
export const repositories: StepDefinition = {
  id: 'repositories',
  name: 'Name the repositories',
  requires: [],
  per: 'network',
  applies: ({ profile, platform }) =>
    platform === 'android' && (profile.android?.repositories ?? []).length > 0,
  look(context) {
    const { reading, profile, titleId } = context;
    if (!reading) return unread(context);
    const facts = reading.facts.filter(
      (fact) => fact.kind === 'repository' && fact.network === profile.id && isWhereBuildLooks(fact),
    );
    const wanted = profile.android?.repositories ?? [];
    const open = wanted.filter(({ url }) => !facts.some(({ value }) => sameAddress(url, value)));
    if (open.length === 0)
      return {
        state: 'done',
        why: 'The build names them.',
        evidence: facts.map(({ value, place }) => ({ what: value, place })),
      };
    return {
      state: 'to-do',
      why: `${open.map(({ url }) => url).join(', ')}: ${open[0]?.why ?? ''}`,
      command: `syndexa wire DIR --title ${titleId} --write`,
    };
  },
};
