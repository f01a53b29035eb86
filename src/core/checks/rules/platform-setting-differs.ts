import { settingsInWords } from '../../placebook/read.js';
import { defineRule, type Report } from '../model.js';
import { placementsOf } from '../code.js';
import { editionScopes, fromFact, type EditionScope } from '../scope.js';

/** A banner in a layout has another size, or is held at another edge, than its placement has on every platform. */
export const settingDiffers = defineRule({
  meta: {
    id: 'platform/setting-differs',
    severity: 'warning',
    ifShipped:
      'The placement looks and earns differently on one platform, and its figures cannot be compared.',
    mend: 'Write the layout as the roster has the placement, or change the placement for all platforms.',
    otherMends: { placebook: 'Run syndexa wire: it writes the placebook as the roster is now.' },
    messages: {
      placebook: '{placement} has {wanted} in the roster, and {found} in this placebook.',
      size: '{placement} has the size {wanted} in the roster, and {found} in this layout.',
      anchor:
        '{placement} is anchored at the {wanted} in the roster, and held at the {found} in this layout.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      yield* inPlacebook(scope);
      for (const view of scope.facts) {
        if (view.kind !== 'banner-view') continue;
        for (const placement of placementsOf(view, scope.title)) {
          const { size, anchor } = scope.title.placements[placement]?.settings ?? {};
          const written = (view.name ?? '').split(' ')[1];
          const edge = /^(top|bottom) edge$/.exec(view.standsIn ?? '')?.[1];
          const base = { ...fromFact(view), placement };
          if (size !== undefined && written !== undefined && written !== size)
            yield { ...base, message: 'size', data: { placement, wanted: size, found: written } };
          if ((anchor === 'top' || anchor === 'bottom') && edge !== undefined && edge !== anchor)
            yield { ...base, message: 'anchor', data: { placement, wanted: anchor, found: `${edge} edge` } };
        }
      }
    }
  },
});

/** The roster has one set of settings for all platforms, so a placebook that says otherwise differs from the rest. */
function* inPlacebook({ facts, title }: EditionScope): Generator<Report<'placebook'>> {
  for (const fact of facts) {
    const placement = fact.kind === 'placement-settings' ? (fact.placement ?? '') : '';
    const settings = title.placements[placement]?.settings;
    const wanted = settings && settingsInWords(settings);
    if (wanted === undefined || wanted === fact.value) continue;
    yield {
      ...fromFact(fact),
      placement,
      message: 'placebook',
      mend: 'placebook',
      data: { placement, wanted, found: fact.value },
    };
  }
}
