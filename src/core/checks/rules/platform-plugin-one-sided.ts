import { requirementsOf } from '../../network/for-stack.js';
import { platforms } from '../../words/words.js';
import { oncePerPlace } from '../code.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';
import { platformLabels } from '../../words/platform-labels.js';

/** A plugin entry gives the app ID of one platform, and the title is built for both. */
export const pluginOneSided = defineRule({
  meta: {
    id: 'platform/plugin-one-sided',
    severity: 'blocker',
    ifShipped: 'The other platform is built without an app ID: many SDKs stop the app at launch without one.',
    mend: 'Give the plugin the IDs of both platforms.',
    byWiring: 'Run syndexa wire: it gives the plugin the IDs of both platforms.',
    messages: { half: '{package} has no {field}, so the {platform} build gets no app ID of {network}.' },
    needsTitle: true,
  },
  *run(context) {
    const scopes = editionScopes(context);
    const found = scopes.flatMap((scope) =>
      scope.networks.flatMap((profile) => {
        const fields = requirementsOf(profile, scope.edition.stack)?.pluginOptions ?? {};
        const field = fields[scope.platform];
        const other = platforms.find((platform) => platform !== scope.platform);
        return scope.facts.flatMap((fact) => {
          if (fact.kind !== 'plugin-entry' || fact.network !== profile.id) return [];
          const given = fact.value.split(', ');
          const half =
            field !== undefined && !given.includes(field) && given.includes((other && fields[other]) ?? '');
          return half ? [{ fact, profile, field, scope, place: fact.place }] : [];
        });
      }),
    );
    for (const { fact, profile, field, scope } of oncePerPlace(found)) {
      const data = {
        package: fact.name ?? '',
        field,
        platform: platformLabels[scope.platform],
        network: profile.name,
      };
      yield { ...fromFact(fact), message: 'half', data };
    }
  },
});
