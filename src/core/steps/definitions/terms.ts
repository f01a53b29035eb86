import type { StepDefinition } from '../model.js';

/** The terms that a person accepts on the network’s pages. */
export const terms: StepDefinition = {
  id: 'terms',
  name: 'Accept the terms',
  requires: ['app'],
  per: 'network',
  applies: ({ profile }) => profile.terms !== undefined,
  look(context) {
    const { profile, app, titleId } = context;
    const page = profile.site === undefined ? {} : { page: profile.site };
    if (app?.terms === true)
      return {
        state: 'done',
        why: `${profile.name} says that they are accepted.`,
        evidence: [{ what: app.id, place: null }],
      };
    if (app?.terms === false)
      return {
        state: 'to-do',
        why: profile.terms ?? 'They are not accepted yet.',
        evidence: [{ what: `${profile.name} says that they are open for ${app.id}`, place: null }],
        ...page,
      };
    const seen = profile.inventory?.http?.apps?.fields.terms !== undefined;
    return {
      state: 'cannot-tell',
      mayBeUnseen: true,
      why: seen
        ? 'The list from the network has not been fetched yet.'
        : 'Only a person can see whether they are accepted.',
      ...(seen ? { command: `syndexa id collect ${titleId} --network ${profile.id}` } : {}),
      ...page,
    };
  },
};
