import { defineRule } from '../model.js';
import { editionScopes } from '../scope.js';

/** A variant that no stage of the title names. */
export const variantUnmatched = defineRule({
  meta: {
    id: 'stage/variant-unmatched',
    severity: 'warning',
    ifShipped: 'Nothing says which IDs this variant should carry, so it is neither checked nor wired.',
    mend: 'Add the variant, its build type or its flavour to a stage of the title: syndexa title set {title} --test NAME.',
    messages: { unmatched: 'The variant {variant} has no stage: {reason}.' },
    needsTitle: true,
  },
  *run(context) {
    for (const { platform, edition } of editionScopes(context)) {
      for (const { name, stage, stageWhy } of edition.variants) {
        if (stage) continue;
        yield {
          platform,
          module: edition.module,
          variants: [name],
          place: edition.home,
          message: 'unmatched',
          data: { variant: name, reason: stageWhy },
        };
      }
    }
  },
});
