import { valueAt } from '../../text/own-values.js';
import { settingsInWords } from '../../placebook/read.js';
import type { Settings } from '../../words/settings.js';
import { heldAtText, type HeldAt } from '../../facts/evidence.js';
import { defineRule, type Report } from '../model.js';
import { isView, placementsOf } from '../code.js';
import { editionScopes, fromFact, type EditionScope } from '../scope.js';

/** A banner has another size, or is held elsewhere, than its placement has on every platform. */
export const settingDiffers = defineRule({
  meta: {
    id: 'platform/setting-differs',
    severity: 'warning',
    ifShipped:
      'The placement looks and earns differently on one platform, and its figures cannot be compared.',
    mend: 'Place the view as the roster says, or change the placement in the roster for all platforms.',
    otherMends: { placebook: 'Write the placebook again from the roster: it is older than the record.' },
    messages: {
      placebook: '{placement} has {wanted} in the roster, but {found} in this placebook.',
      size: '{placement} has the size {wanted} in the roster, but {found} here.',
      anchor: '{placement} is anchored at the {wanted} in the roster, but at the {found} here.',
      fixed: '{placement} is {wanted}, among the content, in the roster, but anchored at the {found} here.',
      scrolls: '{placement} is anchored at the {wanted} in the roster, but scrolls away with {found} here.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      yield* inPlacebook(scope);
      for (const view of scope.facts) {
        if (!isView(view)) continue;
        for (const placement of placementsOf(view, scope.title)) {
          const { size, anchor } = valueAt(scope.title.placements, placement)?.settings ?? {};
          const written = view.kind === 'banner-view' ? view.size : undefined;
          const base = { ...fromFact(view), placement };
          if (size !== undefined && written !== undefined && written !== size)
            yield { ...base, message: 'size', data: { placement, wanted: size, found: written } };
          const other = elsewhere(anchor, view.anchor);
          if (anchor !== undefined && other !== undefined)
            yield {
              ...base,
              message: other.message,
              data: { placement, wanted: anchor, found: other.found },
            };
        }
      }
    }
  },
});

/** Where a view is held, when that is not where the roster has its placement; undefined when it is, or is not told. */
function elsewhere(
  anchor: Settings['anchor'],
  held: HeldAt | undefined,
): { message: 'anchor' | 'scrolls' | 'fixed'; found: string } | undefined {
  if (anchor === undefined || held === undefined) return undefined;
  const found = heldAtText[held];
  if (held === 'scrolling-view' && anchor !== 'inline') return { message: 'scrolls', found };
  if (held !== 'top-edge' && held !== 'bottom-edge') return undefined;
  if (held === `${anchor}-edge`) return undefined;
  return { message: anchor === 'inline' ? 'fixed' : 'anchor', found };
}

/** The roster has one set of settings for all platforms, so a placebook that says otherwise differs from the rest. */
function* inPlacebook({ facts, title }: EditionScope): Generator<Report<'placebook'>> {
  for (const fact of facts) {
    const placement = fact.kind === 'placement-settings' ? (fact.placement ?? '') : '';
    const settings = valueAt(title.placements, placement)?.settings;
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
