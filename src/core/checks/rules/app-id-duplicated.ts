import { isWhereBuildLooks } from '../../facts/effective.js';
import { appIdFacts } from '../app-ids.js';
import { identityOf } from '../../facts/show.js';
import { defineRule } from '../model.js';
import { fromFact, networkName } from '../scope.js';

/** The same key is declared twice in one place, in one variant. */
export const appIdDuplicated = defineRule({
  meta: {
    id: 'app-id/duplicated',
    severity: 'blocker',
    ifShipped: 'The build stops, or one of the two is used without saying which.',
    mend: 'Keep one declaration, and delete the others.',
    byWiring: 'Run syndexa wire: it leaves one declaration.',
    messages: { twice: '{key} is declared twice: here and at {first}.' },
    needsTitle: false,
  },
  *run(context) {
    const seen = new Map<string, string>();
    for (const fact of appIdFacts(context)) {
      if (!isWhereBuildLooks(fact) || fact.carrier === 'code' || fact.carrier === 'placebook') continue;
      const { path, line, column } = fact.place;
      const at = `${path}:${line}:${column}`;
      const firsts = fact.variants.map((variant) => {
        const key = [identityOf(fact), fact.module, variant].join('\0');
        const first = seen.get(key);
        if (first === undefined) seen.set(key, at);
        return { variant, first };
      });
      const again = firsts.filter(({ first }) => first !== undefined && first !== at);
      if (again.length === 0) continue;
      const variants = again.map(({ variant }) => variant);
      yield {
        ...fromFact(fact),
        variants,
        message: 'twice',
        data: { key: fact.name ?? networkName(context, fact.network), first: again[0]?.first ?? '' },
      };
    }
  },
});
