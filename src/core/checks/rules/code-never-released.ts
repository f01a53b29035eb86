import { defineRule } from '../model.js';
import { callsOf, languagesFor, oncePerPlace } from '../code.js';
import { editionScopes, fromFact } from '../scope.js';

/** An ad object is made and never released. */
export const neverReleased = defineRule({
  meta: {
    id: 'code/never-released',
    severity: 'warning',
    ifShipped: 'Every visit to the screen leaves a view, its requests and its memory behind.',
    mend: 'Release it when the screen is disposed of.',
    messages: {
      kept: '{call} creates an ad object, but nothing calls {release}.',
    },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        const released = new Set(callsOf(scope, profile.id, 'release').map(({ format }) => format));
        for (const load of oncePerPlace(callsOf(scope, profile.id, 'load'))) {
          const { format } = load;
          const release = languagesFor(profile, scope.platform).flatMap(
            ({ formats }) => (format && formats[format]?.release?.call) ?? [],
          )[0];
          if (release === undefined || released.has(format)) continue;
          yield { ...fromFact(load), message: 'kept', data: { call: load.value, release } };
        }
      }
    }
  },
});
