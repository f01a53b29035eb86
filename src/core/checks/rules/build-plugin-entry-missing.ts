import { requirementsOf } from '../../network/for-stack.js';
import { defineRule } from '../model.js';
import { editionScopes, listed } from '../scope.js';

/** A package is installed, but the configuration does not name its plugin, which writes the native side. */
export const pluginEntryMissing = defineRule({
  meta: {
    id: 'build/plugin-entry-missing',
    severity: 'blocker',
    ifShipped:
      'The native projects are generated without what the SDK needs, and many SDKs then stop the app at launch.',
    mend: 'Add the plugin to the configuration.',
    byWiring: 'Run syndexa wire: it adds the plugin to the configuration.',
    messages: {
      missing: '{network} requires the plugin {plugin} in the configuration, which is missing in {variants}.',
    },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const { edition, platform } = scope;
      for (const profile of scope.networks) {
        const { package: plugin, pluginOptions } = requirementsOf(profile, edition.stack) ?? {};
        if (plugin === undefined || !pluginOptions) continue;
        const here = [...scope.facts, ...context.survey.unresolved].filter(
          (one) => one.kind === 'plugin-entry' && one.network === profile.id && one.module === edition.module,
        );
        const covered = new Set(here.flatMap(({ variants }) => variants));
        const variants = edition.variants.map(({ name }) => name).filter((name) => !covered.has(name));
        if (variants.length === 0) continue;
        yield {
          platform,
          module: edition.module,
          variants,
          network: profile.id,
          place: edition.home,
          message: 'missing',
          data: { network: profile.name, plugin, variants: listed(variants) },
        };
      }
    }
  },
});
