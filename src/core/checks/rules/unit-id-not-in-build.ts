import { isWhereBuildLooks } from '../../facts/effective.js';
import { defineRule } from '../model.js';
import { editionScopes, listed, networkName, stagedVariants } from '../scope.js';

/** The roster holds a unit ID that some variant of its stage does not carry anywhere. */
export const unitIdNotInBuild = defineRule({
  meta: {
    id: 'unit-id/not-in-build',
    severity: 'blocker',
    ifShipped: 'The placement cannot request an ad, and earns nothing.',
    mend: 'Name the placement in code, through the placebook if there is one.',
    byWiring: 'Run syndexa wire, which writes the placebook, and name the placement through it in code.',
    messages: { absent: 'The build lacks the unit ID of {placement} on {network} ({ids}).' },
    isAbsence: true,
    mayBeInScript: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const open = context.survey.unresolved.filter(
        ({ kind, module }) => kind === 'unit-id' && module === scope.edition.module,
      );
      const absent = new Map<
        string,
        { network: string; placement: string; variants: string[]; ids: string[] }
      >();
      for (const { kind, network, stage, id, placement } of scope.expected) {
        if (kind !== 'unit' || id === undefined || placement === undefined) continue;
        const carriers = [
          ...scope.facts.filter(
            (fact) => fact.kind === 'unit-id' && fact.value === id && isWhereBuildLooks(fact),
          ),
          ...open.filter(({ value }) => value === id),
        ];
        const covered = new Set(carriers.flatMap(({ variants }) => variants));
        const variants = stagedVariants(scope, stage)
          .map(({ name }) => name)
          .filter((name) => !covered.has(name));
        if (variants.length === 0) continue;
        const key = `${network} ${placement}`;
        const entry = absent.get(key) ?? { network, placement, variants: [], ids: [] };
        entry.variants.push(...variants);
        entry.ids.push(`${stage} ${id}`);
        absent.set(key, entry);
      }
      for (const { network, placement, variants, ids } of absent.values()) {
        const data = {
          placement,
          network: networkName(context, network),
          ids: listed(ids),
          variants: listed(variants),
        };
        const { platform, edition } = scope;
        yield {
          platform,
          module: edition.module,
          variants,
          network,
          placement,
          place: edition.home,
          message: 'absent',
          data,
        };
      }
    }
  },
});
