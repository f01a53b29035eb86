import { defineRule } from '../model.js';

/** A cap says how often, and not within what time. */
export const capWithoutPeriod = defineRule({
  meta: {
    id: 'roster/cap-without-period',
    severity: 'warning',
    ifShipped:
      'Each network reads such a cap in its own way: per session, per day, or for as long as the app is installed, when the placement stops earning.',
    mend: 'Give the cap its period in the roster, such as 3 per 1d: syndexa placement set {title} {placement} --cap "3 per 1d".',
    messages: {
      endless: '{placement} is capped at {count} without a period.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const [placement, { settings }] of Object.entries(context.title?.placements ?? {})) {
      if (!settings.cap || settings.cap.per !== undefined) continue;
      yield { placement, message: 'endless', data: { placement, count: String(settings.cap.count) } };
    }
  },
});
