import { packageFor } from '../../network/for-stack.js';
import { asEvidence, findingsOf, unread, type StepDefinition } from '../model.js';

/** The SDK among the dependencies. */
export const dependency: StepDefinition = {
  id: 'dependency',
  name: 'Add the SDK',
  requires: ['repositories', 'build-levels'],
  per: 'network',
  applies: ({ profile, platform, reading }) =>
    (reading && packageFor(profile, reading.edition.stack)) !== undefined ||
    (platform === 'android'
      ? (profile.android?.dependencies ?? []).length > 0
      : (profile.ios?.pods ?? []).length + (profile.ios?.packages ?? []).length > 0),
  look(context) {
    const { reading, profile, titleId } = context;
    if (!reading) return unread(context);
    const missing = findingsOf(context, ['build/dependency-missing']);
    const facts = reading.facts.filter(
      ({ kind, network }) => kind === 'dependency' && network === profile.id,
    );
    if (missing.length > 0)
      return {
        state: 'to-do',
        why: 'The build does not depend on it yet.',
        evidence: asEvidence(missing),
        command: `syndexa wire DIR --title ${titleId} --write`,
      };
    return {
      state: 'done',
      why: 'The build depends on it.',
      evidence: facts.map(({ name, value, place }) => ({ what: `${name ?? ''} ${value}`.trim(), place })),
    };
  },
};
