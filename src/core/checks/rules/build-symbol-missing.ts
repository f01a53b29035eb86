import { requirementsOf } from '../../network/for-stack.js';
import { defineRule } from '../model.js';
import { editionScopes } from '../scope.js';

/** A symbol without which a network's code is left out is not defined for a platform. */
export const symbolMissing = defineRule({
  meta: {
    id: 'build/symbol-missing',
    severity: 'warning',
    ifShipped: 'Code under the symbol is left out of the build, so there are no ads and no error.',
    mend: 'Add it to the scripting symbols of the platform.',
    byWiring: 'Run syndexa wire: it adds the symbol.',
    messages: { missing: '{network} requires the symbol {symbol}, but the settings do not define it here.' },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    for (const { platform, edition, networks, facts } of editionScopes(context)) {
      for (const profile of networks) {
        for (const symbol of requirementsOf(profile, edition.stack)?.symbols ?? []) {
          if (facts.some(({ kind, name }) => kind === 'symbol' && name === symbol)) continue;
          yield {
            platform,
            module: edition.module,
            variants: edition.variants.map(({ name }) => name),
            network: profile.id,
            place: edition.home,
            message: 'missing',
            data: { network: profile.name, symbol },
          };
        }
      }
    }
  },
});
