import { putAt } from '../../../text/own-values.js';
import { callsIn } from '../../../formats/gradle/query.js';
import { elements } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import type { Place } from '../../../facts/evidence.js';
import type { Fact, PlainKind, SurveyEdition, Unresolved } from '../../../facts/model.js';
import { mergeVariants } from '../../../facts/merge.js';
import { placeAt } from '../../../facts/place.js';
import { shippingIdentifier, staged, withPlacements } from '../../../roster/variant-stages.js';
import type { Tree } from '../../../tree/tree.js';
import type { StackSurvey } from '../../stack.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { companionFacts } from '../../common/companion-facts.js';
import { buildFacts } from './build-facts.js';
import { codeOf } from './code.js';
import { compileFacts } from './compile-options.js';
import { dependencyFacts } from './dependencies.js';
import { packedFacts } from './documents.js';
import { layoutFacts } from './layouts.js';
import type { Resolved } from '../../common/gradle/resolved.js';
import { fromResolved, moduleName } from './facts.js';
import { type Collected } from '../../common/manifest/model.js';
import { manifestFacts } from '../../common/manifest/facts.js';
import { moduleManifests } from './module-manifests.js';
import { identifierOf } from './identifier.js';
import { resourceFacts } from './resource-facts.js';
import { appModules } from '../../common/gradle/scripts.js';
import { shrinkerFacts } from './shrinking.js';
import { manifestPath, sourceSetFolder } from './sources.js';
import {
  moduleSetting,
  readModule,
  variantSetting,
  type AndroidVariant,
  type ModuleModel,
} from './variants.js';

/** Surveys every application module below a root. */
export function surveyAndroid(tree: Tree, root: string, context: SurveyContext): StackSurvey {
  const editions: SurveyEdition[] = [];
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  for (const module of appModules(tree).filter((candidate) => candidate.root === root)) {
    const model = readModule(tree, module);
    const identifiers: Record<string, string> = {};
    for (const variant of model.variants) {
      const parts = [
        identifierFacts(tree, model, variant, identifiers),
        levelFacts(model, variant),
        manifestFacts(tree, moduleManifests(tree, model, variant), context),
        resourceFacts(tree, model, variant, context),
        codeOf(tree, model, variant, context),
        dependencyFacts(tree, model, variant, context),
        buildFacts(tree, model, variant, context),
        compileFacts(tree, model, variant, context),
        shrinkerFacts(tree, model, variant, context),
        layoutFacts(tree, model, variant, context),
        packedFacts(tree, model, variant, context),
        companionFacts({
          tree,
          platform: 'android',
          module: moduleName(model),
          variant: variant.name,
          profiles: context.profiles,
          home: model.module.folder,
          folders: companionFolders(model, variant),
        }),
      ];
      for (const part of parts) {
        facts.push(...part.facts);
        unresolved.push(...part.unresolved);
      }
    }
    const variants = model.variants.map((variant) => staged(variant, context.title));
    const identifier = shippingIdentifier(variants, identifiers);
    editions.push({
      platform: 'android',
      stack: 'native-android',
      module: moduleName(model),
      identifier,
      identifiers,
      variants,
      dependencies: dependenciesOf(tree, model),
      home: homeOf(tree, model),
    });
  }
  return {
    editions,
    facts: mergeVariants(withPlacements(facts, context.title)),
    unresolved: mergeVariants(unresolved),
  };
}

/** The build looks into the source sets first, the strongest before the others, then into the module itself. */
function companionFolders(model: ModuleModel, variant: AndroidVariant): string[] {
  return [...variant.sourceSets.map((set) => sourceSetFolder(model, set)).reverse(), model.module.folder];
}

/** The last block of dependencies of the module's script; the script when there is none. */
function dependenciesOf(tree: Tree, { parts, module }: ModuleModel): Place {
  const block = parts
    .filter(({ path }) => path === module.script)
    .flatMap(({ statements }) => callsIn(statements))
    .findLast(({ path }) => path === 'dependencies');
  if (!block) return { path: module.script, line: 1, column: 1 };
  const { start } = block.call;
  return placeAt(module.script, tree.text(module.script), { start, end: start + 'dependencies'.length });
}

/** The application element of the main manifest; the script when there is none. */
function homeOf(tree: Tree, model: ModuleModel): Place {
  const path = manifestPath(model, 'main');
  const root = tree.read(path, readXml)?.root;
  if (!root) return { path: model.module.script, line: 1, column: 1 };
  return placeAt(path, tree.text(path), (elements(root, 'application')[0] ?? root).openTag);
}

function identifierFacts(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  identifiers: Record<string, string>,
): Collected {
  const identifier = identifierOf(tree, model, variant);
  if (identifier.value !== null) putAt(identifiers, variant.name, identifier.value);
  return fromResolved(model, variant, 'identifier', 'application ID', identifier);
}

const levels: [PlainKind, string[]][] = [
  ['min-sdk', ['minSdk', 'minSdkVersion', 'setMinSdkVersion']],
  ['target-sdk', ['targetSdk', 'targetSdkVersion', 'setTargetSdkVersion']],
];

function levelFacts(model: ModuleModel, variant: AndroidVariant): Collected {
  const compile = moduleSetting(model, ['compileSdk', 'compileSdkVersion', 'setCompileSdkVersion']);
  const found: [PlainKind, string, Resolved | undefined][] = [
    ...levels.map(([kind, names]): [PlainKind, string, Resolved | undefined] => [
      kind,
      names[0] ?? kind,
      variantSetting(model, variant, names),
    ]),
    ['compile-sdk', 'compileSdk', compile],
  ];
  const parts = found.flatMap(([kind, what, resolved]) =>
    resolved ? [fromResolved(model, variant, kind, what, plainLevel(resolved))] : [],
  );
  return { facts: parts.flatMap((part) => part.facts), unresolved: parts.flatMap((part) => part.unresolved) };
}

/** `compileSdkVersion "android-34"` is level 34. */
function plainLevel(resolved: Resolved): Resolved {
  if (resolved.value === null) return resolved;
  return { ...resolved, value: resolved.value.replace(/^android-(?=\d)/, '') };
}
