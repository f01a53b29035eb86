import { readStrings } from '../../../formats/android-resources/read.js';
import type { Fact, Unresolved } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { moduleName } from './facts.js';
import { type Collected } from '../../common/manifest/model.js';
import { layersOf } from './libraries.js';
import { buildConfigOf } from './res-values.js';
import { stringsTwice } from './strings-twice.js';
import { qualifiedFiles, stringsOf } from './sources.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

/** Unit IDs that are in string resources or constants of `BuildConfig`, and locales that override an ID. */
export function resourceFacts(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  context: SurveyContext,
): Collected {
  const { recogniser } = context;
  const base = { platform: 'android' as const, module: moduleName(model), variants: [variant.name] };
  const unit = (
    carrier: 'resource' | 'build-config',
    { name, value, place, chain }: Pick<Fact, 'name' | 'value' | 'place' | 'chain'>,
  ): Fact[] =>
    recogniser
      .recognise(value)
      .filter(({ kind }) => kind === 'unit')
      .map(({ network }) => ({
        ...base,
        kind: 'unit-id',
        network,
        name,
        value,
        carrier,
        effective: true,
        place,
        chain,
      }));
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  const strings = stringsOf(tree, model, variant);
  for (const { name, value, place, step } of strings.values())
    facts.push(...unit('resource', { name, value, place, chain: [{ ...step, value }] }));
  for (const { name, value, step } of buildConfigOf(model, variant)) {
    if (value.value === null || !step.place) continue;
    const { place } = step;
    const chain = [step, ...value.chain];
    facts.push(...unit('build-config', { name: `BuildConfig.${name}`, value: value.value, place, chain }));
  }
  facts.push(
    ...localeOverrides(tree, model, variant, recogniser.recognise),
    ...stringsTwice(tree, model, variant, context),
  );
  return { facts, unresolved };
}

/** Strings of other configurations (`values-de`) that give another ID than the default one. */
function localeOverrides(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  recognise: SurveyContext['recogniser']['recognise'],
): Fact[] {
  const strings = stringsOf(tree, model, variant);
  return layersOf(tree, model, variant).flatMap((layer) =>
    layer.variant.sourceSets.flatMap((sourceSet) =>
      qualifiedFiles(tree, layer.model, sourceSet, 'values')
        .filter(({ folder }) => folder !== 'values')
        .flatMap(({ path, folder }) =>
          (tree.read(path, readStrings)?.strings ?? []).flatMap((resource): Fact[] => {
            const own = strings.get(resource.name);
            const network = [own?.value ?? '', resource.value].flatMap((value) => recognise(value))[0]
              ?.network;
            if (network === undefined || own?.value === resource.value) return [];
            const place = placeAt(path, tree.text(path), resource);
            return [
              {
                kind: 'locale-override',
                network,
                platform: 'android',
                module: moduleName(model),
                variants: [variant.name],
                name: resource.name,
                value: resource.value,
                folder,
                effective: true,
                place,
                chain: [
                  ...(own ? [own.step] : []),
                  { what: `string ${resource.name} (${folder})`, value: resource.raw, place },
                ],
              },
            ];
          }),
        ),
    ),
  );
}
