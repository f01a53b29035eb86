import { appendToBlock, blockAt } from '../../../formats/gradle/edit.js';
import { blockBody, callsIn, pathOf } from '../../../formats/gradle/query.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { Edit } from '../../../text/edit.js';
import type { Tree } from '../../../tree/tree.js';
import type { Profile } from '../../../network/model.js';
import type { Change } from '../../../edits/model.js';
import type { StackWiring } from '../../stack.js';
import { dependencySteps } from './hand-dependencies.js';
import { repositoriesOf, repositoryBlocks, repositoryScripts, sameAddress } from '../survey/repositories.js';
import { catalogOf, scriptOf, settingsNames, statementsOf } from '../../common/gradle/catalogs.js';
import type { AppModule } from '../../common/gradle/scripts.js';
import { scriptParts } from '../../common/gradle/parts.js';
import { catalogEntry } from './catalog.js';
import type { AndroidWireContext } from './context.js';
import { unreadScript } from './unread.js';

const rules = ['build/dependency-missing'];

/** SDKs that enrolled networks need: in the form this tree uses, with the repository that they come from. */
export function wireDependencies(context: AndroidWireContext): StackWiring {
  const { title, profiles } = context;
  const changes: Change[] = [];
  const undone: Profile[] = [];
  for (const profile of profiles.filter(({ id }) => isEnrolled(title, id, 'android'))) {
    const missing = missingOf(context, profile);
    if (missing.length === 0) continue;
    if (unreadScript(context)) {
      undone.push(profile);
      continue;
    }
    const mine = [
      ...missing.map((wanted) =>
        dependencyChange(context, profile, { ...wanted, version: versionBeside(context, profile, wanted) }),
      ),
      ...repositoryChanges(context, profile),
    ];
    if (mine.some((change) => change === null)) undone.push(profile);
    else changes.push(...mine.flatMap((change) => change ?? []));
  }
  return { changes, byHand: dependencySteps({ ...context, profiles: undone }) };
}

type Wanted = NonNullable<Profile['android']>['dependencies'][number];

function missingOf(context: AndroidWireContext, profile: Profile): Wanted[] {
  return (profile.android?.dependencies ?? []).filter(
    ({ coordinate }) =>
      !context.survey.facts.some(
        (fact) =>
          fact.kind === 'dependency' && fact.name === coordinate && fact.module === context.edition.module,
      ),
  );
}

/** The version to write: the one that the tree has of others that must have the same, else the profile's own. */
function versionBeside({ survey, edition }: AndroidWireContext, profile: Profile, wanted: Wanted): string {
  const { together, version } = wanted;
  const others = (profile.android?.dependencies ?? []).filter((other) => other.together === together);
  const there = survey.facts.find(
    (fact) =>
      fact.kind === 'dependency' &&
      fact.module === edition.module &&
      /^\d[\w.+-]*$/.test(fact.value) &&
      others.some(({ coordinate }) => coordinate === fact.name),
  );
  return together === undefined ? version : (there?.value ?? version);
}

/** The edits that add one dependency; null where the script has no block of them that can be edited. */
function dependencyChange(
  context: AndroidWireContext,
  profile: Profile,
  { coordinate, version }: Wanted,
): Change[] | null {
  const { tree, model } = context;
  const { script, root } = model.module;
  const document = tree.text(script);
  const block = blockAt(statementsOf(tree, script), ['dependencies']);
  if (!document || !block) return null;
  const kotlin = script.endsWith('.kts');
  const catalog = usesCatalog(block) ? catalogOf(tree, root) : undefined;
  const alias = `${profile.id}-${coordinate.split(':').pop() ?? 'sdk'}`;
  const known = catalog?.catalog.libraries.find(({ name }) => name === coordinate)?.alias;
  const reference = catalog
    ? `libs.${known ?? alias.replace(/[-_]/g, '.')}`
    : kotlin
      ? `"${coordinate}:${version}"`
      : `'${coordinate}:${version}'`;
  const line = kotlin || catalog ? `implementation(${reference})` : `implementation ${reference}`;
  const base = { platform: 'android' as const, network: profile.id, topic: 'dependency' as const, rules };
  const changes: Change[] = [
    {
      ...base,
      path: script,
      kind: 'edit',
      edits: [appendToBlock(document.text, block, line, document.lineEnd)],
    },
  ];
  if (!catalog || known !== undefined) return changes;
  const edit = catalogEntry(
    tree,
    catalog,
    'libraries',
    `${alias} = { module = "${coordinate}", version = "${version}" }`,
  );
  return edit ? [...changes, { ...base, path: catalog.path, kind: 'edit', edits: [edit] }] : null;
}

function usesCatalog(block: NonNullable<ReturnType<typeof blockAt>>): boolean {
  return callsIn(block.body ?? []).some(({ call }) =>
    call.args.some(({ value }) => pathOf(value)?.startsWith('libs.')),
  );
}

/** The repositories that the network's SDK comes from, added where this tree keeps its others; null when nowhere. */
function repositoryChanges({ tree, model }: AndroidWireContext, profile: Profile): (Change[] | null)[] {
  const { root, script } = model.module;
  const there = repositoriesOf(tree, root);
  const scripts = new Set([...repositoryScripts(tree, root), script]);
  const base = {
    platform: 'android' as const,
    network: profile.id,
    topic: 'dependency' as const,
    rules,
  };
  return (profile.android?.repositories ?? [])
    .filter(({ url }) => !there.some(({ name }) => sameAddress(name, url)))
    .map(({ url }) => {
      const lineIn = (path: string) =>
        path.endsWith('.kts') ? `maven { url = uri("${url}") }` : `maven { url '${url}' }`;
      for (const path of scripts) {
        const document = tree.text(path);
        for (const way of repositoryBlocks) {
          const block = blockAt(statementsOf(tree, path), way);
          if (!document || !block) continue;
          return [
            {
              ...base,
              path,
              kind: 'edit',
              edits: [appendToBlock(document.text, block, lineIn(path), document.lineEnd)],
            },
          ];
        }
      }
      const top = firstRepository(tree, model.module);
      return top === undefined
        ? null
        : [{ ...base, path: top, kind: 'edit', edits: [ownBlock(tree, top, lineIn(top))] }];
    });
}

/**
 * The root script of a build without repositories of its own, whose settings leave them to projects: a plugin adds the
 * rest, and one for all projects is added to these.
 */
function firstRepository(tree: Tree, { root, script }: AppModule): string | undefined {
  const top = scriptOf(tree, root);
  const managed = settingsNames.some((name) => {
    const path = root ? `${root}/${name}` : name;
    return tree.has(path) && blockBody(statementsOf(tree, path), 'dependencyResolutionManagement').length > 0;
  });
  const pulled = scriptParts(tree, root, top).missing.length > 0;
  return managed || pulled || top === script ? undefined : top;
}

/** A block of one line, at the end of a script. */
function ownBlock(tree: Tree, path: string, line: string): Edit {
  const document = tree.text(path);
  const text = document?.text ?? '';
  const lineEnd = document?.lineEnd ?? '\n';
  const block = `allprojects { repositories { ${line} } }`;
  const ended = text === '' || /[\r\n]$/.test(text);
  return { start: text.length, end: text.length, text: ended ? `${block}${lineEnd}` : `${lineEnd}${block}` };
}
