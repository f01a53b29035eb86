import { defineRule } from '../model.js';
import type { Fact } from '../../facts/model.js';
import { editionScopes, listed } from '../scope.js';

/** A linker flag that an SDK needs is not set. */
export const linkerFlagMissing = defineRule({
  meta: {
    id: 'plist/linker-flag-missing',
    severity: 'blocker',
    ifShipped: 'The app builds, but crashes at the first call of code that the linker dropped.',
    mend: 'Add the flag to OTHER_LDFLAGS of the target, after $(inherited).',
    messages: {
      missing: '{network} needs the linker flag {flag}, which is missing in {variants}: {why}',
    },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const { platform, edition } = scope;
      for (const profile of platform === 'ios' ? scope.networks : []) {
        // An install of pods sets the flag in a file of its own, which is part of no checkout.
        const linked = scope.facts.filter(
          ({ kind, network }) => kind === 'dependency' && network === profile.id,
        );
        const packaged = linked.flatMap(({ variants }) => variants);
        for (const { flag, why } of profile.ios?.['linker-flags'] ?? []) {
          const variants = edition.variants
            .map(({ name }) => name)
            .filter((name) => packaged.includes(name))
            .filter(
              (name) =>
                !scope.facts.some(
                  (fact) =>
                    fact.kind === 'linker-flag' && fact.value === flag && fact.variants.includes(name),
                ),
            );
          if (variants.length === 0 || linked.some(isPod)) continue;
          const data = { network: profile.name, flag, variants: listed(variants), why };
          yield {
            platform,
            module: edition.module,
            variants,
            network: profile.id,
            place: linked[0]?.place ?? edition.home,
            message: 'missing',
            data,
          };
        }
      }
    }
  },
});

function isPod({ place }: Fact): boolean {
  return /(^|\/)Podfile$/.test(place.path);
}
