import { isIneffective } from '../../facts/effective.js';
import { defineRule } from '../model.js';
import { editionScopes } from '../scope.js';

/** A companion file is in the folder and is not built into the application. */
export const companionOutsideTarget = defineRule({
  meta: {
    id: 'companion/outside-target',
    severity: 'blocker',
    ifShipped:
      'The application ships without the file, and the SDK starts without knowing whose application it is.',
    mend: 'Add the file to the target’s resources (Target Membership in Xcode).',
    messages: {
      outside: '{path} does not belong to the target {module}, so it is not copied into the app.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const found = [...scope.facts, ...context.survey.unresolved].filter(
        (item) =>
          item.kind === 'companion' &&
          isIneffective({ effective: item.effective ?? true }, 'outside-target') &&
          item.platform === scope.platform &&
          item.module === scope.edition.module,
      );
      for (const { platform, module, variants, network, place, chain } of found) {
        if (!scope.networks.some(({ id }) => id === network)) continue;
        yield {
          platform,
          module,
          variants,
          network,
          place,
          chain,
          message: 'outside',
          data: { path: place.path, module },
        };
      }
    }
  },
});
