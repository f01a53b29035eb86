import { blockBody, callsIn } from '../../../formats/gradle/query.js';
import { packageFor } from '../../../network/for-stack.js';
import type { Platform } from '../../../words/words.js';
import type { Place } from '../../../facts/evidence.js';
import type { Fact, SurveyEdition } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import { appModules } from '../../common/gradle/scripts.js';
import { statementsOf } from '../../common/gradle/catalogs.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { below } from '../../common/script-packages/packages.js';
import { type ReactNativeProject } from '../../common/script-packages/project.js';

/** What a native build calls to take in the packages of `package.json`, by platform. */
const podCalls = /^[^#\n]*\b(use_native_modules!|use_expo_modules!)/m;
const gradleCalls = ['applyNativeModulesAppBuildGradle', 'native_modules.applyNativeModulesAppBuildGradle'];

/** Facts for packages of networks that `package.json` asks for and a native build does not take in. */
export function linkingFacts(
  tree: Tree,
  project: ReactNativeProject,
  editions: readonly SurveyEdition[],
  { profiles }: SurveyContext,
  stack: string,
): Fact[] {
  const { manifest, config } = project;
  return editions.flatMap(({ platform, module, variants }) => {
    const without = withoutLinking(tree, project, platform);
    return profiles.flatMap((profile): Fact[] => {
      const wanted = packageFor(profile, stack);
      const asked = manifest.dependencies.find(
        ({ name, section }) => name === wanted?.package && section === 'dependencies',
      );
      if (!asked) return [];
      const exclusion = config.excluded.find(
        (one) => one.package === asked.name && one.platforms.includes(platform),
      );
      const place =
        exclusion && config.path !== undefined
          ? placeAt(config.path, tree.text(config.path), exclusion)
          : without;
      if (!place) return [];
      const value = exclusion ? 'left out' : 'not linked';
      const asks = placeAt(project.path, tree.text(project.path), asked);
      return [
        {
          kind: 'linking',
          network: profile.id,
          platform,
          module,
          variants: variants.map(({ name }) => name),
          name: asked.name,
          value,
          effective: true,
          place,
          chain: [
            { what: 'package.json', value: `${asked.name} ${asked.version}`, place: asks },
            { what: 'native build', value, place },
          ],
        },
      ];
    });
  });
}

/** Where a native build should ask for the packages of `package.json`, and does not; nothing where it does. */
function withoutLinking(tree: Tree, { parts }: ReactNativeProject, platform: Platform): Place | undefined {
  for (const { stack, root } of parts) {
    if (platform === 'ios' && stack.id === 'native-ios') {
      const path = below(root, 'Podfile');
      const podfile = tree.text(path);
      if (podfile && !podCalls.test(podfile.text)) return placeAt(path, podfile, { start: 0, end: 0 });
    }
    if (platform === 'android' && stack.id === 'native-android') {
      for (const { script } of appModules(tree).filter((module) => module.root === root)) {
        const statements = statementsOf(tree, script);
        const inReact = callsIn(blockBody(statements, 'react')).map(({ path }) => path);
        const all = callsIn(statements).map(({ path }) => path);
        const linked =
          inReact.includes('autolinkLibrariesWithApp') || all.some((path) => gradleCalls.includes(path));
        if (!linked) return placeAt(script, tree.text(script), { start: 0, end: 0 });
      }
    }
  }
  return undefined;
}
