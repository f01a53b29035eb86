import { defineRule } from '../model.js';
import { refusedSettings } from '../roster.js';

/** A placement is shown more often than a network allows. */
export const capBeyondNetwork = defineRule({
  meta: {
    id: 'roster/cap-beyond-network',
    severity: 'warning',
    ifShipped: 'The network stops filling the placement for the rest of its period.',
    mend: 'Lower the cap in the roster: syndexa placement set {title} {placement} --cap "COUNT per TIME".',
    messages: {
      refused: '{placement}: {why} {fix}',
    },
    needsTitle: true,
  },
  run: (context) => refusedSettings(context, 'cap'),
});
