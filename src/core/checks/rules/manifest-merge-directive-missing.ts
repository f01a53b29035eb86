import { aboutText, toldBy, toldText } from '../../network/directives.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact, listed } from '../scope.js';

/** The merger of manifests is not told what an SDK needs it to be told. */
export const mergeDirectiveMissing = defineRule({
  meta: {
    id: 'manifest/merge-directive-missing',
    severity: 'blocker',
    ifShipped:
      'The build stops when manifests are merged, or the app gets what the SDK’s manifest says instead.',
    mend: 'Add the directive to the element in the main manifest, and xmlns:tools to its root.',
    byWiring: 'Run syndexa wire: it writes the directive.',
    messages: {
      lacking: '{network} needs {directive} on {about}, which does not have it: {why}',
      missing: '{network} needs {about} with {directive}, but no manifest of {variants} has it: {why}',
    },
    needsTitle: true,
    isAbsence: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const { platform, edition } = scope;
      if (platform !== 'android') continue;
      for (const profile of scope.networks) {
        for (const directive of profile.android?.merge ?? []) {
          const about = aboutText(directive);
          for (const told of toldBy(directive)) {
            const data = { network: profile.name, about, directive: toldText(told), why: directive.why };
            const stands = scope.facts.filter(
              (fact) =>
                fact.kind === 'merge-directive' &&
                fact.network === profile.id &&
                fact.name === about &&
                fact.value === data.directive,
            );
            for (const fact of stands)
              if (fact.kind === 'merge-directive' && !fact.given)
                yield { ...fromFact(fact), message: 'lacking', data };
            // Without the element there is nothing whose attributes could be kept.
            if (told.by !== 'node') continue;
            const variants = edition.variants
              .map(({ name }) => name)
              .filter((name) => !stands.some((fact) => fact.variants.includes(name)));
            if (variants.length === 0) continue;
            yield {
              platform,
              module: edition.module,
              variants,
              network: profile.id,
              place: edition.home,
              message: 'missing',
              data: { ...data, variants: listed(variants) },
            };
          }
        }
      }
    }
  },
});
