import { defineRule } from '../model.js';
import { requirementsOf } from '../../network/for-stack.js';
import { floorOf } from '../../text/versions.js';
import { isOlder } from '../versions.js';
import { editionScopes, fromFact } from '../scope.js';

/** The tree allows a framework version that a network's package does not run on. */
export const frameworkTooOld = defineRule({
  meta: {
    id: 'build/framework-too-old',
    severity: 'warning',
    ifShipped: 'The packages cannot be resolved, or resolve to an older package than the one that is wired.',
    mend: 'Raise the minimum version of the framework in this file.',
    messages: {
      old: 'The project allows {framework} {value}, but {package} of {network} needs {wanted} or newer.',
    },
    needsTitle: true,
  },
  *run(context) {
    const seen = new Set<string>();
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        const needed = requirementsOf(profile, scope.edition.stack);
        if (needed?.framework === undefined) continue;
        for (const fact of scope.facts) {
          const key = `${profile.id} ${fact.place.path} ${fact.place.line}`;
          if (
            fact.kind !== 'framework' ||
            seen.has(key) ||
            !isOlder(lowerBound(fact.value), needed.framework)
          )
            continue;
          seen.add(key);
          const data = {
            framework: fact.name ?? '',
            value: fact.value,
            package: needed.package,
            network: profile.name,
            wanted: needed.framework,
          };
          const base = fromFact(fact);
          yield {
            ...base,
            platform: null,
            module: null,
            variants: [],
            network: profile.id,
            message: 'old',
            data,
          };
        }
      }
    }
  },
});

/** The version with which a range begins: `3.1.0` of `>=3.1.0 <4.0.0`. */
function lowerBound(range: string): string {
  return floorOf(/(?:>=?|\^|~|^)\s*v?(\d\S*)/.exec(range)?.[1] ?? '') ?? '';
}
