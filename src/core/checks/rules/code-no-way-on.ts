import { defineRule } from '../model.js';
import { answers, callbackNames, callsOf, fullScreen, oncePerPlace } from '../code.js';
import { editionScopes, fromFact } from '../scope.js';

/** After a full-screen ad, the app continues neither when it is closed nor when it fails. */
export const noWayOn = defineRule({
  meta: {
    id: 'code/no-way-on',
    severity: 'warning',
    ifShipped: 'The user is stuck on a dead screen and closes the app.',
    mend: 'Continue to the next screen when the ad is closed, and also when it fails.',
    messages: {
      stuck: '{call} takes over the screen, but the code continues neither in {closed} nor in {failed}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        for (const show of oncePerPlace(callsOf(scope, profile.id, 'show'))) {
          const { format } = show;
          const callbacks = callbackNames(profile, scope.platform, format);
          if (!format || !fullScreen.has(format)) continue;
          if (callbacks.closed === undefined || callbacks.failed === undefined) continue;
          if (answers(scope, show, 'closed') || answers(scope, show, 'failed')) continue;
          const { closed, failed } = callbacks;
          yield { ...fromFact(show), message: 'stuck', data: { call: show.value, closed, failed } };
        }
      }
    }
  },
});
