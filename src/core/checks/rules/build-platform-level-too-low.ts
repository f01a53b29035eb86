import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';
import { compareVersions } from '../../text/versions.js';

/** The build reaches back to a platform version that a network's SDK no longer supports. */
export const platformLevelTooLow = defineRule({
  meta: {
    id: 'build/platform-level-too-low',
    severity: 'blocker',
    ifShipped: 'The build stops when the SDK is merged, or the app crashes on old devices.',
    mend: 'Raise the level in the build file named here; it decides which devices can install the app, so wiring does it only when asked: syndexa wire --raise-sdk.',
    messages: { low: '{network} needs {what} {needed} or newer, but this build has {value}: {why}' },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        const needs = [
          { kind: 'min-sdk', what: 'minSdk', need: profile.android?.['min-sdk'] },
          { kind: 'compile-sdk', what: 'compileSdk', need: profile.android?.['compile-sdk'] },
          {
            kind: 'deployment-target',
            what: 'the deployment target',
            need: profile.ios?.['deployment-target'],
          },
        ];
        for (const { kind, what, need } of needs) {
          if (!need) continue;
          // A level that several variants set, each at its own place, is one fault.
          const low = scope.facts.filter(
            (fact) => fact.kind === kind && compareVersions(fact.value, String(need.value)) < 0,
          );
          for (const value of new Set(low.map((fact) => fact.value))) {
            const same = low.filter((fact) => fact.value === value);
            const [first] = same;
            if (!first) continue;
            const data = { network: profile.name, what, needed: String(need.value), value, why: need.why };
            const variants = same.flatMap((fact) => fact.variants);
            const chain = same.flatMap((fact) => fact.chain);
            // The place is the one to change: where the chain ends.
            const place = first.chain.at(-1)?.place ?? first.place;
            yield { ...fromFact(first), place, variants, chain, network: profile.id, message: 'low', data };
          }
        }
      }
    }
  },
});
