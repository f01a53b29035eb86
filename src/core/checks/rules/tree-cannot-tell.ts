import { defineRule, type CheckContext } from '../model.js';
import { listed } from '../scope.js';
import { isEnrolled } from '../../roster/expected.js';

/** Whether any network that counts here works with some Kotlin versions only. */
function asksForKotlin({ profiles, title }: CheckContext): boolean {
  return profiles.some(({ id, android }) => android?.kotlin && (!title || isEnrolled(title, id, 'android')));
}

/** A value that the build computes only when it runs. */
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
      // A value that certainly does not exist is reported by app-id/missing.
      if (item.cause !== undefined && item.cause !== 'unread-script' && title) continue;
      if (item.kind === 'kotlin' && !asksForKotlin(context)) continue;
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
