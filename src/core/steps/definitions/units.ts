import type { StepDefinition } from '../model.js';

/** A production unit of each placement that the network fills. */
export const units: StepDefinition = {
  id: 'units',
  name: 'Create a unit for each placement',
  requires: ['app'],
  per: 'network',
  look(context) {
    const { profile, expected, titleId, platform } = context;
    const units = expected.filter(({ kind, stage }) => kind === 'unit' && stage === 'production');
    const open = units.filter(({ id }) => id === undefined);
    if (units.length === 0)
      return {
        state: 'to-do',
        why: `No placement names ${profile.name} on ${platform}.`,
        command: `syndexa placement set ${titleId} PLACEMENT --network ${profile.id}`,
      };
    const evidence = units.map(({ placement, id }) => ({
      what: `${placement ?? ''}: ${id ?? 'none yet'}`,
      place: null,
    }));
    if (open.length === 0) return { state: 'done', why: 'Every placement has its unit.', evidence };
    return {
      state: 'to-do',
      why: `${open.map(({ placement }) => placement).join(', ')} ${open.length === 1 ? 'has' : 'have'} no unit yet.`,
      evidence,
      command: profile.inventory?.http?.create
        ? `syndexa provision ${titleId} --network ${profile.id} --platform ${platform}`
        : `syndexa id collect ${titleId} --network ${profile.id} --csv FILE`,
    };
  },
};
