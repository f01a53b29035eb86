import { defineRule } from '../model.js';
import type { Fact } from '../../facts/model.js';
import type { Profile } from '../../network/model.js';
import { groupBy } from '../../text/group-by.js';
import { editionScopes, fromFact, listed, networkName } from '../scope.js';

/** One SDK is taken in twice, in different versions or by different managers. */
export const dependencyTwice = defineRule({
  meta: {
    id: 'build/dependency-twice',
    severity: 'warning',
    ifShipped: 'The build tool decides which version ships, or the linker finds every class twice.',
    mend: 'Remove one of the two lines.',
    messages: {
      twice: '{name} of {network} is a dependency of {variants} twice: {first} and {second}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const declared = scope.facts.filter((fact) => fact.kind === 'dependency' && fact.network !== null);
      for (const [index, fact] of declared.entries()) {
        const profile = context.profiles.find(({ id }) => id === fact.network);
        const earlier = declared.slice(0, index).filter((other) => clash(other, fact, profile));
        const again = fact.variants.flatMap((variant) => {
          const known = earlier.find(({ variants }) => variants.includes(variant));
          return known ? [{ known, variant }] : [];
        });
        for (const [known, found] of groupBy(again, (one) => one.known)) {
          const variants = found.map(({ variant }) => variant);
          const data = {
            name: fact.name ?? '',
            network: networkName(context, fact.network),
            variants: listed(variants),
            first: declaredAs(known),
            second: declaredAs(fact),
          };
          yield { ...fromFact(fact), variants, message: 'twice', data };
        }
      }
    }
  },
});

/**
 * Whether two dependencies of one network bring the same code twice: a library in two versions, or a pod beside a Swift
 * package. The parts of a pod, and the several libraries of a network, belong together.
 */
function clash(one: Fact, other: Fact, profile: Profile | undefined): boolean {
  if (one.network !== other.network) return false;
  const products = (profile?.ios?.packages ?? []).map(({ product }) => product);
  const isPod = (fact: Fact) => /(^|\/)Podfile$/.test(fact.place.path);
  const isSwiftPackage = (fact: Fact) => !isPod(fact) && products.includes(fact.name ?? '');
  if ((isPod(one) && isSwiftPackage(other)) || (isSwiftPackage(one) && isPod(other))) return true;
  return one.name === other.name && one.value !== other.value;
}

/** A declaration for messages: `ads-sdk 6.2.0 (app/build.gradle:12)`. */
function declaredAs({ name = '', value, place }: Fact): string {
  return `${name} ${value} (${place.path}:${place.line})`;
}
