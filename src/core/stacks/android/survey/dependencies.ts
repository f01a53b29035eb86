import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { binaryFacts } from './binaries.js';
import { coordinatesOf } from './coordinates.js';
import { dependencyCalls } from './dependency-calls.js';
import { moduleName } from './facts.js';
import { type Collected } from '../../common/manifest/model.js';
import { forcedFacts } from './forced-versions.js';
import { narrowFacts } from './narrow-dependencies.js';
import { layersOf } from './libraries.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

/** The dependencies of a variant that a network's profile claims, those of modules it takes in included. */
export function dependencyFacts(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  { profiles }: SurveyContext,
): Collected {
  const apart = [forcedFacts, narrowFacts].flatMap((factsOf) => factsOf(tree, model, variant, profiles));
  const found: Collected = { facts: apart, unresolved: [] };
  for (const layer of layersOf(tree, model, variant)) {
    const calls = dependencyCalls(layer.model, layer.variant);
    const named = calls.flatMap((item) =>
      coordinatesOf(tree, layer.model, item).map((coordinate) => ({ item, coordinate })),
    );
    for (const { item, coordinate } of named) {
      const { name, platform, chain } = coordinate;
      if (platform) continue;
      for (const profile of profiles) {
        if (!profile.android?.dependencies.some((wanted) => wanted.coordinate === name)) continue;
        const place = placeAt(item.script, tree.text(item.script), item.call);
        const group = name.split(':')[0] ?? '';
        const bom =
          coordinate.version === ''
            ? named.find(
                (other) => other.coordinate.platform && other.coordinate.name.startsWith(`${group}:`),
              )
            : undefined;
        const base = {
          kind: 'dependency' as const,
          network: profile.id,
          platform: 'android' as const,
          module: moduleName(model),
          variants: [variant.name],
          name,
          place,
        };
        const steps = [{ what: item.configuration, value: name, place }, ...chain];
        if (bom) {
          const at = placeAt(bom.item.script, tree.text(bom.item.script), bom.item.call);
          steps.push({
            what: 'platform',
            value: `${bom.coordinate.name}:${bom.coordinate.version}`,
            place: at,
          });
        }
        if (item.conditional)
          found.unresolved.push({
            ...base,
            what: `whether ${name} is among the dependencies`,
            reason: 'it is added under a condition',
            chain: steps,
          });
        else found.facts.push({ ...base, value: coordinate.version, effective: true, chain: steps });
      }
    }
    found.facts.push(...binaryFacts(tree, { layer, calls, profiles, module: moduleName(model), variant }));
  }
  return found;
}
