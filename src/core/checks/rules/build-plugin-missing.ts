import { defineRule } from '../model.js';
import { editionScopes } from '../scope.js';

/** A build plugin that an SDK needs is not applied. */
export const pluginMissing = defineRule({
  meta: {
    id: 'build/plugin-missing',
    severity: 'blocker',
    ifShipped:
      'The companion file is never read, and the SDK starts without knowing whose application it is.',
    mend: 'Apply the plugin in the plugins block of the application module.',
    messages: {
      missing: '{network} requires the plugin {id} {version} in {module}: {why}',
    },
    isAbsence: true,
    mayBeInScript: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const { platform, edition } = scope;
      if (platform !== 'android') continue;
      for (const profile of scope.networks) {
        const plugin = profile.android?.plugin;
        const there = scope.facts.some(({ kind, name }) => kind === 'build-plugin' && name === plugin?.id);
        if (!plugin || there) continue;
        const { id, version, why } = plugin;
        const variants = edition.variants.map(({ name }) => name);
        const data = { network: profile.name, id, version, module: edition.module, why };
        yield {
          platform,
          module: edition.module,
          variants,
          network: profile.id,
          place: edition.home,
          message: 'missing',
          data,
        };
      }
    }
  },
});
