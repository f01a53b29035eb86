import { defineRule } from '../model.js';
import { sameLine } from '../versions.js';
import { editionScopes, fromFact } from '../scope.js';

/** One network's SDK is a generation apart on the two platforms. */
export const versionsDifferAcrossPlatforms = defineRule({
  meta: {
    id: 'build/versions-differ-across-platforms',
    severity: 'note',
    ifShipped: 'Placements behave differently on the two platforms, and figures cannot be compared.',
    mend: 'Update the older one when both can be changed.',
    messages: {
      differ: '{network} is at {android} on Android and at {ios} on iOS.',
    },
    needsTitle: true,
  },
  *run(context) {
    const scopes = editionScopes(context);
    for (const profile of context.profiles) {
      const versions = scopes.flatMap(({ platform, facts }) => {
        const fact = facts.find(
          ({ kind, network, value }) => kind === 'dependency' && network === profile.id && /\d/.test(value),
        );
        const major = fact && /(\d+)/.exec(fact.value)?.[1];
        return fact && major !== undefined ? [{ platform, fact, major }] : [];
      });
      const android = versions.find(({ platform }) => platform === 'android');
      const ios = versions.find(({ platform }) => platform === 'ios');
      if (!android || !ios || android.major === ios.major || !sameLine(profile)) continue;
      const data = { network: profile.name, android: android.fact.value, ios: ios.fact.value };
      yield { ...fromFact(ios.fact), platform: null, module: null, variants: [], message: 'differ', data };
    }
  },
});
