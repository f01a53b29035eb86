import { defineRule } from '../model.js';
import { refusedSettings } from '../roster.js';

/** A placement waits shorter or longer than a network allows. */
export const timeoutOutOfBounds = defineRule({
  meta: {
    id: 'roster/timeout-out-of-bounds',
    severity: 'warning',
    ifShipped: 'Requests are cut off before they are answered, or users wait at an empty screen.',
    mend: 'Change the timeout in the roster: syndexa placement set {title} {placement} --timeout TIME.',
    messages: {
      refused: '{placement}: {why} {fix}',
    },
    needsTitle: true,
  },
  run: (context) => refusedSettings(context, 'timeout'),
});
