import { defineRule } from '../model.js';
import { refusedSettings } from '../roster.js';

/** A banner is refreshed faster or slower than a network allows. */
export const refreshOutOfBounds = defineRule({
  meta: {
    id: 'roster/refresh-out-of-bounds',
    severity: 'warning',
    ifShipped: 'The network ignores the time, or counts impressions as invalid.',
    mend: 'Change the setting in the roster: syndexa placement set {title} {placement} --refresh TIME.',
    messages: {
      refused: '{placement}: {why} {fix}',
    },
    needsTitle: true,
  },
  run: (context) => refusedSettings(context, 'refresh'),
});
