import { platformNames } from '../../../words/names.js';
import { nodesAt, readJson } from '../../../formats/json/read.js';
import type { Platform } from '../../../words/words.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { Title } from '../../../roster/model.js';
import { Draft } from '../../../text/draft.js';
import type { Edit } from '../../../text/edit.js';
import type { Tree } from '../../../tree/tree.js';
import type { Change } from '../../../edits/model.js';
import { alsoFor } from '../../common/joint-wiring.js';
import type { WireContext } from '../../stack.js';
import type { ExpoBuild } from '../survey/builds.js';
import type { ExpoProject } from '../../common/script-packages/expo-project.js';

/** The rules whose findings edits of the configuration may fix. */
export const rules = [
  'app-id/missing',
  'app-id/wrong-platform',
  'app-id/differs-from-roster',
  'app-id/duplicated',
  'attribution/id-missing',
  'build/plugin-entry-missing',
  'platform/plugin-one-sided',
  'plist/key-missing',
  'plist/key-wrong-type',
  'stage/production-id-in-test',
  'stage/test-id-in-production',
];

/** What wiring works on: the project, its builds, and its files as they become. */
export interface Work {
  tree: Tree;
  project: ExpoProject;
  builds: readonly ExpoBuild[];
  context: WireContext;
  drafts: Map<string, Draft>;
  /** What was put in that others may need too. */
  adds: string[];
  /** The key under which `app.json` holds the configuration. */
  under: string[];
}

/** Begins work on the configuration of a project. */
export function configWorkOf(
  tree: Tree,
  project: ExpoProject,
  builds: readonly ExpoBuild[],
  context: WireContext,
): Work {
  const drafts = new Map<string, Draft>();
  for (const path of [project.json?.path, project.eas?.path])
    if (path !== undefined) drafts.set(path, new Draft(tree.text(path)?.text ?? ''));
  const json = project.json && readJson(drafts.get(project.json.path)?.text ?? '').root;
  return {
    tree,
    project,
    builds,
    context,
    drafts,
    adds: [],
    under: nodesAt(json ?? null, ['expo']).length > 0 ? ['expo'] : [],
  };
}

/** Whether a title uses a network on any platform. */
export function isUsed(title: Title, network: string): boolean {
  return platformNames.some((platform) => isEnrolled(title, network, platform));
}

/** Edits a file as the edits so far leave it. */
export function edit({ drafts }: Work, path: string, make: (text: string) => Edit[]): void {
  const draft = drafts.get(path);
  draft?.apply(make(draft.text));
}

/** The changes of all files that were edited. */
export function changesOf({ drafts, context, project, adds }: Work, platform: Platform): Change[] {
  return [...drafts].flatMap(([path, { edits }]): Change[] => {
    const base = {
      path,
      platform,
      also: alsoFor(context, platform),
      network: null,
      topic: 'app-id' as const,
    };
    const added = path === project.json?.path ? { adds } : {};
    return edits.length === 0 ? [] : [{ ...base, ...added, rules, kind: 'edit', edits }];
  });
}
