import { defineRule } from '../model.js';
import { usesNetwork } from '../../roster/expected.js';

/** A network does not serve the audience of a title. */
export const audienceNotServed = defineRule({
  meta: {
    id: 'privacy/audience-not-served',
    severity: 'blocker',
    ifShipped: 'The network closes accounts that send it such an audience.',
    mend: 'Take the network out of this title, or correct the audience.',
    messages: {
      refused: '{network} does not serve titles whose audience is {audience}: {why}',
    },
    needsTitle: true,
  },
  *run(context) {
    const { title } = context;
    for (const { id, name, audiences } of context.profiles) {
      if (!title || !audiences || audiences.allowed.includes(title.audience)) continue;
      if (!usesNetwork(title, id)) continue;
      yield {
        network: id,
        message: 'refused',
        data: { network: name, audience: title.audience, why: audiences.why },
      };
    }
  },
});
