import { defineRule } from '../model.js';
import { durationSeconds } from '../../words/durations.js';
import { fullScreen } from '../code.js';

/** A cap allows more showings than its period has room for. */
export const capWithoutEffect = defineRule({
  meta: {
    id: 'roster/cap-without-effect',
    severity: 'note',
    ifShipped: 'The cap never limits anything, although the roster suggests that it does.',
    mend: 'Lower the count, or lengthen the period: syndexa placement set {title} {placement} --cap "COUNT per TIME".',
    messages: {
      idle: '{placement} is capped at {count} per {per}: a full-screen ad is never shown more often than every {seconds} seconds.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const [placement, { format, settings }] of Object.entries(context.title?.placements ?? {})) {
      if (!settings.cap?.per || !fullScreen.has(format)) continue;
      const seconds = durationSeconds(settings.cap.per) / settings.cap.count;
      if (seconds >= shortest) continue;
      const data = {
        placement,
        count: String(settings.cap.count),
        per: settings.cap.per,
        seconds: String(Math.round(seconds)),
      };
      yield { placement, message: 'idle', data };
    }
  },
});

/** A full-screen ad takes at least so long (seconds), so no cap above it holds anything back. */
const shortest = 15;
