import { defineRule } from '../model.js';
import { listed } from '../scope.js';
import { isEnrolled } from '../../roster/expected.js';

/** A value that the build works out only when it runs. */
export const cannotTell = defineRule({
  meta: {
    id: 'tree/cannot-tell',
    severity: 'note',
    ifShipped: 'The value may be right or wrong: reading the files does not tell.',
    mend: 'Look at the place named here, or write the value so that it can be read.',
    messages: { open: 'Cannot tell {what} in {variants}: {reason}.' },
    needsTitle: false,
  },
  *run(context) {
    const { survey, title } = context;
    for (const item of survey.unresolved) {
      if (item.network && title && !isEnrolled(title, item.network, item.platform)) continue;
      const { platform, module, variants, network, place, chain, what, reason } = item;
      yield {
        platform,
        module,
        variants,
        network,
        place,
        chain,
        message: 'open',
        data: { what, variants: listed(variants), reason },
      };
    }
  },
});
