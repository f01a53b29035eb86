import { defineRule } from '../model.js';
import { editionScopes, networkName } from '../scope.js';

/** The roster has a hole where a unit ID belongs. */
export const unitIdNotInRoster = defineRule({
  meta: {
    id: 'unit-id/not-in-roster',
    severity: 'warning',
    ifShipped: 'The placement stays empty in this stage.',
    mend: 'Put the ID into the roster: syndexa id set.',
    messages: {
      hole: 'The roster has no {stage} unit ID of {network} for the placement {placement} on {platform.label}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const { platform, edition, expected } of editionScopes(context)) {
      for (const { kind, network, stage, id, placement } of expected) {
        if (kind !== 'unit' || id !== undefined || placement === undefined) continue;
        const data = { stage, network: networkName(context, network), placement, platform };
        yield { platform, module: edition.module, network, placement, message: 'hole', data };
      }
    }
  },
});
