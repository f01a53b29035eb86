import { asEvidence, findingsOf, unread, type StepDefinition } from '../model.js';

/** The platform levels that the SDK needs. */
export const buildLevels: StepDefinition = {
  id: 'build-levels',
  name: 'Raise the build levels',
  requires: [],
  per: 'network',
  applies: ({ profile, platform }) =>
    platform === 'android'
      ? profile.android?.['min-sdk'] !== undefined || profile.android?.['compile-sdk'] !== undefined
      : profile.ios?.['deployment-target'] !== undefined,
  look(context) {
    const { reading, profile, platform, titleId } = context;
    if (!reading) return unread(context);
    const low = findingsOf(context, ['build/platform-level-too-low']);
    if (low.length > 0)
      return {
        state: 'to-do',
        why: 'The build is set lower than the SDK supports.',
        evidence: asEvidence(low),
        command: `syndexa wire DIR --title ${titleId} --raise-sdk --write`,
      };
    const kinds = platform === 'android' ? ['min-sdk', 'compile-sdk'] : ['deployment-target'];
    const facts = reading.facts.filter(({ kind }) => kinds.includes(kind));
    if (facts.length === 0)
      return {
        state: 'cannot-tell',
        why: `Reading finds no level that ${profile.name} could be held against.`,
      };
    return {
      state: 'done',
      why: 'The levels are high enough.',
      evidence: facts.map(({ kind, value, place }) => ({ what: `${kind} ${value}`, place })),
    };
  },
};
