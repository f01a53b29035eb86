import type { StepDefinition } from '../model.js';

/** The application, as the network knows it. */
export const app: StepDefinition = {
  id: 'app',
  name: 'Create the app at the network',
  requires: ['register'],
  per: 'network',
  applies: ({ profile }) => profile.ids.app !== undefined || profile.inventory?.http?.apps !== undefined,
  look(context) {
    const { profile, app, inventory, titleId, expected, platform, identifier } = context;
    if (app && app.identifier === identifier)
      return {
        state: 'done',
        why: `${profile.name} has it as ${app.id}.`,
        evidence: [{ what: `${app.identifier} (${app.name})`, place: null }],
      };
    const own = expected.find(({ kind, stage }) => kind === 'app' && stage === 'production');
    // A table lists units, and no apps.
    const listed = inventory?.units.find(({ id }) =>
      expected.some((one) => one.kind === 'unit' && one.stage === 'production' && one.id === id),
    );
    if (!app && listed)
      return {
        state: 'done',
        why: `${profile.name} lists units of it.`,
        evidence: [{ what: `${listed.id} (${listed.name})`, place: null }],
      };
    if ((inventory?.apps ?? []).length === 0 && own?.from === 'roster')
      return {
        state: 'done',
        why: 'The roster holds its app ID.',
        evidence: [{ what: own.id ?? '', place: null }],
      };
    return {
      state: 'to-do',
      why: app
        ? `At ${profile.name} ${app.id} belongs to ${app.identifier}, not to ${identifier}.`
        : `${profile.name} is not known to have ${identifier} on ${platform}.`,
      command: profile.inventory?.http?.create
        ? `syndexa provision ${titleId} --network ${profile.id} --platform ${platform}`
        : `syndexa id set ${titleId} ID --network ${profile.id} --platform ${platform}`,
      ...(profile.site === undefined ? {} : { page: profile.site }),
    };
  },
};
