import { removeStatement } from '../../../text/lines.js';
import { entryOf } from '../../../formats/pbxproj/read.js';
import { editionOf } from '../../../roster/modules.js';
import type { Tree } from '../../../tree/tree.js';
import type { Change } from '../../../edits/model.js';
import type { StackWiring, UnwireContext } from '../../stack.js';
import { podfileOf } from '../survey/dependencies.js';
import { othersNeed, staysNeeded, type IosUnwireContext } from './context.js';
import { objectLines, ownItems } from './objects.js';
import { unwireLists } from './lists.js';
import { unwireSettings } from './settings.js';
import { objectId } from '../wire/pbx-objects.js';
import { sourceHome } from '../survey/sources.js';
import { targetsBelow } from '../survey/targets.js';
import type { StagedVariant } from '../wire/context.js';
import { packageIds } from '../wire/packages.js';
import { placebookIds, existingPlacebooks, wirePlacebook } from '../wire/placebook.js';

const parts = [unwireLists, unwireSettings, unwirePods, unwirePackages, unwireCompanion, unwirePlacebook];

/** Computes the edits that take a network out of the title's iOS edition. */
export function unwireIos(tree: Tree, root: string, context: UnwireContext): StackWiring {
  const { title, survey } = context;
  const edition = editionOf(survey.editions, title, 'ios');
  const model = targetsBelow(tree, root).find(({ module }) => module === edition?.module);
  if (!edition || !model) return { changes: [], byHand: [] };
  const variants = model.variants.map((variant): StagedVariant => {
    const stage = edition.variants.find(({ name }) => name === variant.name)?.stage;
    return { ...variant, stage: stage ?? 'production' };
  });
  const unwiring: IosUnwireContext = { ...context, tree, model, edition, variants };
  return { changes: parts.flatMap((part) => part(unwiring)), byHand: [] };
}

function unwirePods(context: IosUnwireContext): Change[] {
  const { tree, model, network, survey } = context;
  const podfile = podfileOf(tree, model.project.folder);
  const document = podfile === undefined ? undefined : tree.text(podfile);
  if (podfile === undefined || !document) return [];
  const names = (network.ios?.pods ?? [])
    .map(({ name }) => name)
    .filter((name) => !othersNeed(context, ({ ios }) => ios?.pods.some((pod) => pod.name === name) ?? false));
  const places = survey.facts.flatMap(({ kind, network: about, name, place }) =>
    kind === 'dependency' && about === network.id && place.path === podfile && names.includes(name ?? '')
      ? [place]
      : [],
  );
  const seen = new Set<number>();
  return places.flatMap((place): Change[] => {
    const start = document.lines.lineStart(place.line) + place.column - 1;
    const end = document.lines.lineStart(place.endLine ?? place.line) + (place.endColumn ?? place.column) - 1;
    if (seen.has(start)) return [];
    seen.add(start);
    return [
      {
        path: podfile,
        platform: 'ios',
        network: network.id,
        topic: 'dependency',
        rules: [],
        kind: 'edit',
        edits: [removeStatement(document.text, { start, end })],
      },
    ];
  });
}

/** Objects of the project file by their IDs, with everything that lists them. */
function withoutObjects(
  { tree, model, network }: IosUnwireContext,
  ids: readonly string[],
  topic: Change['topic'],
): Change[] {
  const { path, objects } = model.project;
  const text = tree.text(path)?.text;
  const known = ids.filter((id) => entryOf(objects, id));
  if (text === undefined || known.length === 0) return [];
  const edits = [...objectLines(text, objects, known), ...ownItems(text, objects, known)];
  return [{ path, platform: 'ios', network: network.id, topic, rules: [], kind: 'edit', edits }];
}

type IosPackage = NonNullable<IosUnwireContext['network']['ios']>['packages'][number];

function unwirePackages(context: IosUnwireContext): Change[] {
  const { model, network } = context;
  const isShared = (asks: (other: IosPackage) => boolean) =>
    othersNeed(context, ({ ios }) => ios?.packages.some(asks) ?? false);
  const ids = (network.ios?.packages ?? []).flatMap((wanted) => {
    const { reference, product, build } = packageIds(model.target.id, wanted);
    const { url } = wanted;
    return [
      ...(isShared((other) => other.url === url) ? [] : [reference]),
      ...(isShared((other) => other.url === url && other.product === wanted.product) ? [] : [product, build]),
    ];
  });
  return withoutObjects(context, ids, 'dependency');
}

function unwireCompanion(context: IosUnwireContext): Change[] {
  const { tree, model, network } = context;
  const companion = network.ios?.companion;
  if (!companion) return [];
  const folder = sourceHome(model)?.folder ?? model.project.folder;
  const path = `${folder ? `${folder}/` : ''}${companion.file}`;
  const id = (role: string) => objectId(`${role} ${model.target.id} ${path}`);
  const file: Change[] = tree.has(path)
    ? [{ path, platform: 'ios', network: network.id, topic: 'companion', rules: [], kind: 'remove' }]
    : [];
  return [...file, ...withoutObjects(context, [id('file'), id('build')], 'companion')];
}

/** The placebook without the network; none where nothing is left for it to say. */
function unwirePlacebook(context: IosUnwireContext): Change[] {
  const { tree, model, rest } = context;
  const existing = existingPlacebooks(tree, model);
  if (existing.length === 0) return [];
  if (staysNeeded(context)) return wirePlacebook({ ...context, title: rest, profiles: [] }).changes;
  const base = { platform: 'ios' as const, network: null, topic: 'placebook' as const, rules: [] };
  const ids = existing.flatMap((path) => Object.values(placebookIds(model.target.id, path)));
  return [
    ...existing.map((path): Change => ({ ...base, path, kind: 'remove' })),
    ...withoutObjects(context, ids, 'placebook').map((change) => ({ ...change, network: null })),
  ];
}
