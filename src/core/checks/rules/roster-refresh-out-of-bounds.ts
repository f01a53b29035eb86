import { defineRule } from '../model.js';
import { settingFaults } from '../roster.js';

/** A banner is refreshed faster or slower than a network allows. */
export const refreshOutOfBounds = defineRule({
  meta: {
    id: 'roster/refresh-out-of-bounds',
    severity: 'warning',
    ifShipped: 'The network ignores the time, or counts impressions as invalid.',
    mend: 'Change the setting in the roster: syndexa placement set.',
    messages: {
      refused: '{placement}: {what} {fix}',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const { placement, network, faults } of settingFaults(context)) {
      const fault = faults.refresh;
      if (!fault) continue;
      yield {
        placement,
        network,
        message: 'refused',
        data: { placement, what: fault.message, fix: fault.fix },
      };
    }
  },
});
