import { nearUnit } from '../near-ids.js';
import { defineRule } from '../model.js';
import { editionScopes, fromValue } from '../scope.js';

/** A unit ID is in the build that nobody knows. */
export const unitIdUnknown = defineRule({
  meta: {
    id: 'unit-id/unknown',
    severity: 'warning',
    ifShipped: 'Its revenue goes to an unknown placement, or to somebody else.',
    mend: 'Assign it to a placement in the roster, or remove it from the build.',
    messages: {
      unknown: '{id} is a {label} of {network}, but no placement in the roster has it.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const fact of scope.facts) {
        if (fact.kind !== 'unit-id' || fact.placement) continue;
        const profile = scope.networks.find(({ id }) => id === fact.network);
        const reading = context.recogniser
          .recognise(fact.value, fact.network ?? undefined)
          .find(({ network, kind }) => network === fact.network && kind === 'unit');
        const sample = (reading?.sample ?? []).length > 0;
        if (!profile || !reading || sample) continue;
        // One that is nearly another is reported as mistyped.
        if (nearUnit(fact.value, profile.id, scope.title)) continue;
        const data = { id: fact.value, label: profile.ids.unit?.label ?? 'unit ID', network: profile.name };
        yield { ...fromValue(fact), message: 'unknown', data };
      }
    }
  },
});
