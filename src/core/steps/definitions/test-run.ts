import type { StepDefinition } from '../model.js';

/** A run on a device, with the network’s test ads. */
export const testRun: StepDefinition = {
  id: 'test-run',
  name: 'Run it with test ads',
  requires: ['placements-in-code'],
  per: 'network',
  look(context) {
    return {
      state: 'cannot-tell',
      why: `Only a person sees whether ${context.profile.name} shows its test ads on a device.`,
      ...(context.profile.site === undefined ? {} : { page: context.profile.site }),
    };
  },
};
