import type { Fact } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import type { Profile } from '../../../network/model.js';
import type { Tree } from '../../../tree/tree.js';
import { coordinatesOf } from './coordinates.js';
import { allDependencyCalls, dependencyCalls } from './dependency-calls.js';
import { moduleName } from './facts.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

/** SDKs of networks that a module declares, but not for the app of a variant: for tests, or for other variants. */
export function narrowFacts(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  profiles: readonly Profile[],
): Fact[] {
  const reaching = new Set(dependencyCalls(model, variant).map(({ call }) => call.start));
  return allDependencyCalls(model)
    .filter(({ call }) => !reaching.has(call.start))
    .flatMap((item) =>
      coordinatesOf(tree, model, item).flatMap(({ name, version, platform, chain }) =>
        profiles
          .filter(({ android }) => android?.dependencies.some(({ coordinate }) => coordinate === name))
          .filter(() => !platform)
          .map(({ id }): Fact => {
            const place = placeAt(item.script, tree.text(item.script), item.call);
            const declared = version === '' ? name : `${name}:${version}`;
            const steps = [{ what: item.configuration, value: declared, place }, ...chain];
            const edition = {
              platform: 'android' as const,
              module: moduleName(model),
              variants: [variant.name],
            };
            const said = { name, value: item.configuration, effective: true as const, place, chain: steps };
            return { kind: 'narrow-dependency', network: id, ...edition, ...said };
          }),
      ),
    );
}
