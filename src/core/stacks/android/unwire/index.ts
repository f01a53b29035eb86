import { isWhereBuildLooks } from '../../../facts/effective.js';
import { editionOf } from '../../../roster/modules.js';
import type { Tree } from '../../../tree/tree.js';
import type { Change } from '../../../edits/model.js';
import type { StackWiring, UnwireContext } from '../../stack.js';
import { needsPlacebook, placebookProfiles } from '../../../placebook/contents.js';
import { appModules } from '../../common/gradle/scripts.js';
import { stageSets } from '../survey/source-sets.js';
import { manifestPath } from '../survey/sources.js';
import { readModule } from '../survey/variants.js';
import type { AndroidUnwireContext } from './context.js';
import { unwireApplication, unwireManifests } from './manifests.js';
import { unwireCompileOptions, unwireShrinker } from './compile-options.js';
import { unwireScripts } from './scripts.js';
import { unwireStrings } from './strings.js';
import { existingPlacebooks, wirePlacebook } from '../wire/placebook.js';

const parts = [
  unwireManifests,
  unwireApplication,
  unwireStrings,
  unwireScripts,
  unwireCompileOptions,
  unwireShrinker,
  unwireFiles,
  unwirePlacebook,
];

/** Computes the edits that take a network out of the title's Android edition. */
export function unwireAndroid(tree: Tree, root: string, context: UnwireContext): StackWiring {
  const { title, survey } = context;
  const edition = editionOf(survey.editions, title, 'android');
  const module = appModules(tree).find(
    (candidate) => candidate.root === root && (candidate.folder || '.') === edition?.module,
  );
  if (!edition || !module) return { changes: [], byHand: [] };
  const model = readModule(tree, module);
  const sets = stageSets(edition.variants) ?? [];
  const manifest = manifestPath(model, 'main');
  const unwiring: AndroidUnwireContext = { ...context, tree, model, edition, sets, manifest };
  return { changes: parts.flatMap((part) => part(unwiring)), byHand: [] };
}

/** Library and companion files of the network. */
function unwireFiles(context: AndroidUnwireContext): Change[] {
  const { tree, model, network, survey } = context;
  const { folder } = model.module;
  const base = { platform: 'android' as const, network: network.id, rules: [], kind: 'remove' as const };
  const binaries = survey.facts.flatMap((fact) =>
    fact.kind === 'binary' && fact.network === network.id && isWhereBuildLooks(fact) ? [fact.value] : [],
  );
  const companion = network.android?.companion;
  const lying = companion
    ? [`${folder ? `${folder}/` : ''}${companion.file}`].filter((path) => tree.has(path))
    : [];
  return [
    ...[...new Set(binaries)].map((path) => ({ ...base, topic: 'binary' as const, path })),
    ...lying.map((path) => ({ ...base, topic: 'companion' as const, path })),
  ];
}

/** The placebook without the network; none where nothing is left for it to say. */
function unwirePlacebook(context: AndroidUnwireContext): Change[] {
  const books = existing(context);
  const texts = books.map(({ text }) => text);
  const left = placebookProfiles(context.allProfiles, [], texts);
  if (books.length > 0 && needsPlacebook(context.rest, left, 'android'))
    return wirePlacebook({ ...context, title: context.rest, profiles: [] }).changes;
  return books.map(({ path }) => ({
    path,
    platform: 'android',
    network: null,
    topic: 'placebook',
    rules: [],
    kind: 'remove',
  }));
}

function existing(context: AndroidUnwireContext) {
  const names = new Set(context.model.variants.flatMap(({ sourceSets }) => sourceSets));
  return [...names].flatMap((sourceSet) => existingPlacebooks(context, sourceSet));
}
