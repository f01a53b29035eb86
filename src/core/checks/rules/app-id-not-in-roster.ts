import { defineRule } from '../model.js';
import { editionScopes, networkName } from '../scope.js';

/** The roster has a hole where an app ID belongs. */
export const appIdNotInRoster = defineRule({
  meta: {
    id: 'app-id/not-in-roster',
    severity: 'warning',
    ifShipped: 'There is no ID to build with, so this stage of the edition cannot be wired.',
    mend: 'Put the ID into the roster: syndexa id set.',
    messages: { hole: 'The roster has no {stage} app ID of {network} for {platform.label}.' },
    needsTitle: true,
  },
  *run(context) {
    for (const { platform, edition, expected } of editionScopes(context)) {
      for (const { kind, network, stage, id } of expected) {
        if (kind !== 'app' || id !== undefined) continue;
        const data = { stage, network: networkName(context, network), platform };
        yield { platform, module: edition.module, network, message: 'hole', data };
      }
    }
  },
});
