import { defineRule } from '../model.js';
import { callsOf, languagesFor, oncePerPlace, readyNames } from '../code.js';
import { editionScopes, fromFact } from '../scope.js';

/** An ad is shown without asking whether it is loaded. */
export const showWithoutCheck = defineRule({
  meta: {
    id: 'code/show-without-check',
    severity: 'warning',
    ifShipped: 'Nothing is shown, the network counts a failed show, and the user waits at an empty screen.',
    mend: 'Check it first, or show the ad in the callback that reports that it is loaded.',
    messages: {
      blind: '{call} is called without checking {ready} first.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        for (const show of oncePerPlace(callsOf(scope, profile.id, 'show'))) {
          const names = readyNames(profile, scope.platform, show.format);
          const loaded = languagesFor(profile, scope.platform).flatMap(({ formats }) =>
            Object.values(formats).flatMap(({ callbacks }) => callbacks.loaded ?? []),
          );
          const { conditions = [], methods = [] } = show.code ?? {};
          const asked = conditions.some(({ text }) => names.some((name) => text.includes(name)));
          if (names.length === 0 || asked || methods.some((method) => loaded.includes(method))) continue;
          yield { ...fromFact(show), message: 'blind', data: { call: show.value, ready: names[0] ?? '' } };
        }
      }
    }
  },
});
