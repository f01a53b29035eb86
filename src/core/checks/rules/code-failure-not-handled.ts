import { defineRule } from '../model.js';
import { answers, callbackNames, callbacksOf, callsOf, oncePerPlace } from '../code.js';
import { editionScopes, fromFact } from '../scope.js';

/** What happens when an ad cannot be loaded is left open. */
export const failureNotHandled = defineRule({
  meta: {
    id: 'code/failure-not-handled',
    severity: 'warning',
    ifShipped: 'A failed request is never retried, and the ad area stays empty.',
    mend: 'Handle the failure: retry later, hide the ad area, or continue without an ad.',
    messages: {
      open: '{call} may fail, but nothing implements {failed}.',
      empty: '{call} may fail, but {failed} does nothing.',
    },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        for (const load of oncePerPlace(callsOf(scope, profile.id, 'load'))) {
          const { failed } = callbackNames(profile, scope.platform, load.format);
          if (failed === undefined || answers(scope, load, 'failed')) continue;
          const all = callbacksOf(scope, profile.id, 'failed');
          const near = all.filter(({ place }) => place.path === load.place.path);
          const idle = (near.length > 0 ? near : all).some(({ code }) => code?.empty === true);
          const message = idle ? 'empty' : 'open';
          yield { ...fromFact(load), message, data: { call: load.value, failed } };
        }
      }
    }
  },
});
