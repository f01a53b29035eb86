import { isIneffective } from '../../facts/effective.js';
import type { Fact, Unresolved } from '../../facts/model.js';
import type { Profile } from '../../network/model.js';
import { groupBy } from '../../text/group-by.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact, lackingVariants, listed, removalsAmong } from '../scope.js';

/** A network is enrolled, but a variant carries no app ID for it where the SDK looks. */
export const appIdMissing = defineRule({
  meta: {
    id: 'app-id/missing',
    severity: 'blocker',
    ifShipped: 'The SDK finds no app ID when it starts: most stop the app at launch, the others show no ads.',
    mend: 'Declare the app ID where the SDK looks for it, for both stages.',
    byWiring: 'Run syndexa wire: it declares the app ID for both stages.',
    otherMends: {
      removed:
        'Take the directive out of this manifest, or accept the finding if these variants are meant to do without.',
    },
    messages: {
      noValue: 'The declaration of the app ID of {network} ({key}) has no value, in {variants}.',
      undefined: 'The app ID of {network} has no value in {variants}: {reason}.',
      asResource:
        'The app ID of {network} ({key}) is given by {attribute}, which is a number to the SDK. It belongs in android:value.',
      removed: 'The app ID of {network} ({key}) is removed from {variants} by {directive}.',
      declared: 'The app ID of {network} ({key}) is missing in {variants}.',
      inCode: 'No code passes the {label} of {network} to its start-up call in {variants}.',
    },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        const place = profile[scope.platform]?.['app-id'];
        if (!place || !profile.ids.app) continue;
        const here = [...scope.facts, ...context.survey.unresolved].filter(
          (fact) =>
            fact.kind === 'app-id' && fact.network === profile.id && fact.module === scope.edition.module,
        );
        const lacking = lackingVariants(scope, here);
        const removals = removalsAmong(
          scope.facts.filter((fact) => here.includes(fact)),
          lacking,
        );
        for (const { fact, directive, variants } of removals) {
          const data = { network: profile.name, key: fact.name ?? '', directive, variants: listed(variants) };
          yield { ...fromFact(fact), variants, message: 'removed', mend: 'removed', data };
        }
        const without = byPlace(
          here.filter((one) => isValueless(one) && one.variants.some((name) => lacking.includes(name))),
        );
        for (const one of without) yield valueless(one, profile, lacking);
        const told = new Set([...removals, ...without].flatMap((one) => one.variants));
        const variants = lacking.filter((name) => !told.has(name));
        if (variants.length === 0) continue;
        const common = {
          platform: scope.platform,
          module: scope.edition.module,
          variants,
          network: profile.id,
          place: scope.edition.home,
        };
        const data = { network: profile.name, variants: listed(variants) };
        if (place.place === 'code')
          yield { ...common, message: 'inCode', data: { ...data, label: profile.ids.app.label } };
        else yield { ...common, message: 'declared', data: { ...data, key: place.key } };
      }
    }
  },
});

/** Whether an app ID is declared but has no value in the build. */
function isValueless(item: Fact | Unresolved): boolean {
  if ('cause' in item && item.cause !== undefined) return true;
  return item.effective !== undefined && isIneffective({ effective: item.effective }, 'as-resource');
}

/** Items of one place as one, for all their variants. */
function byPlace(items: readonly (Fact | Unresolved)[]): (Fact | Unresolved)[] {
  const groups = groupBy(items, ({ place, ...one }) => JSON.stringify([place, 'cause' in one && one.cause]));
  return [...groups.values()].flatMap((same) => {
    const [first] = same;
    return first ? [{ ...first, variants: [...new Set(same.flatMap(({ variants }) => variants))] }] : [];
  });
}

function valueless(item: Fact | Unresolved, { name, id }: Profile, lacking: readonly string[]) {
  const variants = item.variants.filter((one) => lacking.includes(one));
  const { platform, module, place, chain } = item;
  const base = { platform, module, variants, network: id, place, chain };
  const data: Record<string, string> = { network: name, variants: listed(variants) };
  const key = chain[0]?.value ?? '';
  if (!('reason' in item))
    return {
      ...base,
      message: 'asResource' as const,
      data: { ...data, key: item.name ?? key, attribute: 'android:resource' },
    };
  if (item.cause === 'no-value')
    return { ...base, message: 'noValue' as const, data: { ...data, key: item.what } };
  return { ...base, message: 'undefined' as const, data: { ...data, reason: item.reason } };
}
