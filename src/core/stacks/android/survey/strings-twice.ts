import { readStrings } from '../../../formats/android-resources/read.js';
import type { ChainStep } from '../../../facts/evidence.js';
import type { Fact } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { groupBy } from '../../../text/group-by.js';
import type { Tree } from '../../../tree/tree.js';
import { moduleName } from './facts.js';
import { resValuesOf } from './res-values.js';
import { valueFiles } from './sources.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

type Definition = ChainStep & { name: string; value: string; place: Fact['place'] };

/**
 * Strings with IDs of networks that are defined twice: in the files of one source set, or in those of `main` and by
 * `resValue` in a script. The build stops at both ("Duplicate resources").
 */
export function stringsTwice(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  { recogniser }: SurveyContext,
): Fact[] {
  const made = resValuesOf(model, variant).map(({ name, value, place }): Definition => ({
    what: 'resValue',
    name,
    value,
    place,
  }));
  return variant.sourceSets.flatMap((sourceSet) => {
    const written = valueFiles(tree, model, sourceSet).flatMap((path) =>
      (tree.read(path, readStrings)?.strings ?? []).map((resource): Definition => ({
        what: `string of ${sourceSet}`,
        name: resource.name,
        value: resource.value,
        place: placeAt(path, tree.text(path), resource),
      })),
    );
    const all = [...written, ...(sourceSet === 'main' ? lastOfEach(made) : [])];
    return [...groupBy(all, ({ name }) => name)].flatMap(([name, same]): Fact[] => {
      const [first, second] = same;
      const network = same.flatMap(({ value }) => recogniser.recognise(value))[0]?.network;
      if (!first || !second || network === undefined) return [];
      return [
        {
          kind: 'string-twice',
          network,
          platform: 'android',
          module: moduleName(model),
          variants: [variant.name],
          name,
          value: second.value,
          effective: true,
          place: second.place,
          chain: same.map(({ what, value, place }) => ({ what, value, place })),
        },
      ];
    });
  });
}

/** Of several values that scripts give one name the last counts, and is the only one that is generated. */
function lastOfEach(definitions: readonly Definition[]): Definition[] {
  return [...new Map(definitions.map((one) => [one.name, one])).values()];
}
