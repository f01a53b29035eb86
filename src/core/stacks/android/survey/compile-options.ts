import { callsIn, pathOf, type FoundValue } from '../../../formats/gradle/query.js';
import type { ChainStep } from '../../../facts/evidence.js';
import type { Fact, Unresolved } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { desugarLibrary } from '../../../network/wanted.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import type { Tree } from '../../../tree/tree.js';
import { blockParts, callsOf, settingOf, type Part } from '../../common/gradle/parts.js';
import type { Resolved } from '../../common/gradle/resolved.js';
import type { Collected } from '../../common/manifest/model.js';
import { coordinatesOf } from './coordinates.js';
import { allDependencyCalls } from './dependency-calls.js';
import { evaluate } from './evaluate.js';
import { fromResolved, moduleName } from './facts.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

export const desugarNames = [
  'isCoreLibraryDesugaringEnabled',
  'coreLibraryDesugaringEnabled',
  'setCoreLibraryDesugaringEnabled',
];

const javaNames = ['targetCompatibility', 'setTargetCompatibility'];
const sourceNames = ['sourceCompatibility', 'setSourceCompatibility'];

/** The blocks of compile options of a module, with the scripts that they are in. */
export function compileOptions(model: ModuleModel): Part[] {
  return blockParts(model.android, 'compileOptions');
}

/** The settings that decide the Java level: of Java code, and of Kotlin code where it has one of its own. */
export function javaSettings(model: ModuleModel): { java?: Found; kotlin?: Found } {
  const options = compileOptions(model);
  const java = settingOf(options, javaNames) ?? settingOf(options, sourceNames);
  const kotlin =
    settingOf(blockParts(model.android, 'kotlinOptions'), ['jvmTarget', 'setJvmTarget']) ??
    settingOf(blockParts(blockParts(model.parts, 'kotlin'), 'compilerOptions'), [
      'jvmTarget',
      'jvmTarget.set',
    ]);
  return { ...(java ? { java } : {}), ...(kotlin ? { kotlin } : {}) };
}

type Found = FoundValue & { path: string };

/** The Java level and desugaring of a module, for networks that ask for them. */
export function compileFacts(
  tree: Tree,
  model: ModuleModel,
  variant: AndroidVariant,
  { profiles }: SurveyContext,
): Collected {
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  if (profiles.some(({ android }) => android?.java)) {
    const { java, kotlin } = javaSettings(model);
    const levels: [string, Resolved][] = [['Java', javaLevel(tree, model, java)]];
    if (kotlin) levels.push(['Kotlin', levelOf(model, kotlin)]);
    for (const [name, resolved] of levels) {
      const found = fromResolved(model, variant, 'java-level', `the Java level of ${name}`, resolved);
      facts.push(...found.facts.map((fact) => ({ ...fact, name })));
      unresolved.push(...found.unresolved);
    }
  }
  if (profiles.some(({ android }) => android?.desugaring)) {
    const found = desugaringFacts(tree, model, variant);
    facts.push(...found.facts);
    unresolved.push(...found.unresolved);
  }
  return { facts, unresolved };
}

/** What a module is compiled for: its own setting, else that of the tool chain, else what the plugin takes. */
function javaLevel(tree: Tree, model: ModuleModel, java: Found | undefined): Resolved {
  if (java) return levelOf(model, java);
  const chains = callsOf(blockParts(blockParts(model.parts, 'java'), 'toolchain'), callsIn).concat(
    callsOf(blockParts(model.parts, 'kotlin'), callsIn).filter(({ path }) => path === 'jvmToolchain'),
    callsOf(model.parts, callsIn).filter(({ path }) => path === 'kotlin.jvmToolchain'),
  );
  const language = settingOf(blockParts(blockParts(model.parts, 'java'), 'toolchain'), [
    'languageVersion',
    'languageVersion.set',
  ]);
  if (language) return levelOf(model, language);
  const [chain] = chains.filter(({ path }) => path.endsWith('jvmToolchain'));
  const given = chain?.call.args[0]?.value;
  if (chain && given) return plain(evaluate(given, { ...model.scope, path: chain.script }));
  const { script } = model.module;
  const place = placeAt(script, tree.text(script), { start: 0, end: 0 });
  return { value: '8', chain: [{ what: 'not set, so the Android plugin takes', value: '8', place }] };
}

function levelOf({ scope }: ModuleModel, { value, path, conditional }: Found): Resolved {
  const place = placeAt(path, scope.tree.text(path), value);
  const written = scope.tree.text(path)?.text.slice(value.start, value.end) ?? null;
  const chain: ChainStep[] = [{ what: 'Gradle', value: written, place }];
  if (conditional) return { value: null, reason: 'it is set under a condition', chain };
  const inner = value.type === 'call' && value.args.length === 1 ? value.args[0]?.value : undefined;
  const named = /\b(?:VERSION|JVM)_(\d+)(?:_(\d+))?$/.exec(pathOf(value) ?? (inner && pathOf(inner)) ?? '');
  if (named) return { value: String(named[2] ?? named[1]), chain };
  const isMade = inner !== undefined && /(^|\.)(of|toVersion|fromTarget)$/.test(callee(value));
  return plain(evaluate(isMade ? inner : value, { ...scope, path }));
}

function callee(value: FoundValue['value']): string {
  return value.type === 'call' ? (pathOf(value.callee) ?? '') : '';
}

/** `1.8` is level 8, and so is `VERSION_1_8`. */
function plain(resolved: Resolved): Resolved {
  if (resolved.value === null) return resolved;
  const level = /^(?:(?:JavaVersion\.)?VERSION_)?(?:1[._])?(\d{1,2})$/.exec(resolved.value)?.[1];
  return level === undefined
    ? { value: null, reason: `“${resolved.value}” is no Java level`, chain: resolved.chain }
    : { ...resolved, value: level };
}

function desugaringFacts(tree: Tree, model: ModuleModel, variant: AndroidVariant): Collected {
  const base = {
    kind: 'desugaring' as const,
    network: null,
    platform: 'android' as const,
    module: moduleName(model),
    variants: [variant.name],
    effective: true as const,
  };
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  const found = settingOf(compileOptions(model), desugarNames);
  if (found) {
    const resolved = evaluate(found.value, { ...model.scope, path: found.path });
    const place = placeAt(found.path, tree.text(found.path), found.value);
    const is = resolved.value;
    if (found.conditional || is === null)
      unresolved.push({
        ...base,
        what: 'whether core library desugaring is on',
        reason: found.conditional ? 'it is set under a condition' : 'it is computed when the build runs',
        place,
        chain: resolved.chain,
      });
    else facts.push({ ...base, name: 'switch', value: is, place, chain: resolved.chain });
  }
  for (const item of allDependencyCalls(model)) {
    if (item.configuration !== 'coreLibraryDesugaring') continue;
    for (const { name, version, chain } of coordinatesOf(tree, model, item)) {
      if (name !== desugarLibrary) continue;
      const place = placeAt(item.script, tree.text(item.script), item.call);
      facts.push({
        ...base,
        name,
        value: version,
        place,
        chain: [{ what: item.configuration, value: version, place }, ...chain],
      });
    }
  }
  return { facts, unresolved };
}
