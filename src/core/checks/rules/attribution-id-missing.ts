import { normalId } from '../../standards/skadnetwork.js';
import { defineRule } from '../model.js';
import { editionScopes, listed } from '../scope.js';

/** An identifier that an enrolled network requires and the property list lacks. */
export const attributionIdMissing = defineRule({
  meta: {
    id: 'attribution/id-missing',
    severity: 'warning',
    ifShipped: 'Installs through the network are attributed to nobody, so it bids less or not at all.',
    mend: 'Add it to SKAdNetworkItems in the property list.',
    byWiring: 'Run syndexa wire: it adds the identifier to SKAdNetworkItems.',
    messages: { missing: 'SKAdNetworkItems of {variants} lacks {ids} ({network}).' },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      if (scope.platform !== 'ios') continue;
      for (const profile of scope.networks) {
        const wanted = profile.ios?.attribution?.ids ?? [];
        const lacking = scope.edition.variants.flatMap(({ name }) => {
          const there = new Set(
            scope.facts
              .filter((fact) => fact.kind === 'attribution-id' && fact.variants.includes(name))
              .map(({ value }) => normalId(value)),
          );
          const ids = wanted.filter((id) => !there.has(id));
          return ids.length > 0 ? [{ name, ids }] : [];
        });
        if (lacking.length === 0) continue;
        const ids = [...new Set(lacking.flatMap((one) => one.ids))];
        const variants = lacking.map(({ name }) => name);
        const data = { network: profile.name, ids: listed(ids, ids.length), variants: listed(variants) };
        yield {
          platform: 'ios',
          module: scope.edition.module,
          variants,
          network: profile.id,
          place: scope.edition.home,
          message: 'missing',
          data,
        };
      }
    }
  },
});
