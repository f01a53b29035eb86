import { appendItem, labelled, removeWords, setPbxString } from '../../../formats/pbxproj/edit.js';
import { entryOf } from '../../../formats/pbxproj/read.js';
import { needsPlacebook, placebookContents, placebookProfiles } from '../../../placebook/contents.js';
import { placebookMark, isSameGeneratedText } from '../../../languages/common/placebook.js';
import { objectiveC } from '../../../languages/objective-c/index.js';
import { swift } from '../../../languages/swift/index.js';
import { baseOf, folderOf, isWithin } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import type { Edit } from '../../../text/edit.js';
import type { ByHand, Change } from '../../../edits/model.js';
import { placebookRules } from '../../common/by-hand-steps.js';
import type { StackWiring } from '../../stack.js';
import { addObject, addToList, buildFile, fileReference, objectId } from './pbx-objects.js';
import { filePaths, mainGroupOf } from '../survey/project.js';
import { sourceHome, sourcePaths, type SourceHome } from '../survey/sources.js';
import { clangDefinitionsOf, swiftConditionsOf, type SettingsScope } from '../survey/settings.js';
import type { TargetModel } from '../survey/targets.js';
import type { IosWireContext } from './context.js';
import { referenceIn } from './references.js';

const platform = 'ios' as const;
const topic = 'placebook' as const;
/** The condition that wiring writes if no existing one distinguishes test configurations from the rest. */
export const ownCondition = 'SYNDEXA_TEST';

type Language = SourceHome['language'];

/** The settings that conditions of each language come from, and what they say. */
const conditions: Record<Language, { key: string; of: (scope: SettingsScope) => Set<string>; own: string }> =
  {
    swift: { key: 'SWIFT_ACTIVE_COMPILATION_CONDITIONS', of: swiftConditionsOf, own: ownCondition },
    'objective-c': { key: 'GCC_PREPROCESSOR_DEFINITIONS', of: clangDefinitionsOf, own: `${ownCondition}=1` },
  };

/** What writes the placebook in each language. */
const writers = { swift: swift.placebook, 'objective-c': objectiveC.placebook };

/** The placebook in the language of the target, compiled into it; it picks the stage by a condition. */
export function wirePlacebook(context: IosWireContext): StackWiring {
  const { tree, model, title } = context;
  const standing = existingPlacebooks(tree, model);
  const profiles = placebookProfiles(
    context.allProfiles,
    context.profiles,
    standing.map((path) => tree.text(path)?.text ?? ''),
  );
  if (!needsPlacebook(title, profiles, platform)) return { changes: [], byHand: [] };
  const home = sourceHome(model);
  if (!home) {
    const step: ByHand = {
      platform,
      network: null,
      rule: 'unit-id/not-in-build',
      what: `Add a source file to the target ${model.target.name}, then wire again.`,
      why: 'The placebook goes beside the target’s other source files, and the target has none.',
      where: model.project.path,
    };
    return { changes: [], byHand: [step] };
  }
  const { language } = home;
  const { files, write } = writers[language];
  const isBook = (path: string) => files.some((name) => name === baseOf(path));
  const folder = folderOf(standing.find(isBook) ?? `${home.folder}/x`);
  const existing = standing.map((path) => tree.text(path)?.text).find((text) => text?.includes('#if '));
  const condition = testCondition(context, language, existing);
  const [test, production] = (['test', 'production'] as const).map((stage) =>
    placebookContents(title, profiles, platform, stage),
  );
  if (!test || !production) return { changes: [], byHand: [] };
  const options = { title: title.name, revision: context.revision, testCondition: condition };
  const contents = write({ test, production }, options);
  const base = { platform, network: null, topic, rules: placebookRules };
  const changes = files.flatMap((name, at): Change[] => {
    const path = folder === '' ? name : `${folder}/${name}`;
    const content = contents[at] ?? '';
    const there = tree.text(path)?.text;
    const written: Change[] =
      there !== undefined && isSameGeneratedText(there, content)
        ? []
        : [{ ...base, path, kind: 'create', content }];
    return [...written, ...membershipChanges(context, home, path)];
  });
  return {
    changes: [...changes, ...(condition === ownCondition ? conditionChanges(context, language) : [])],
    byHand: [],
  };
}

/** The placebooks that are in the project, in any language. */
export function existingPlacebooks(tree: Tree, model: TargetModel): string[] {
  const { project } = model;
  const names: string[] = Object.values(writers).flatMap(({ files }) => files);
  // Sources may be outside the folder of the project, and only its groups say where.
  const referenced = new Set(filePaths(project.objects, mainGroupOf(project), project.folder).values());
  const home = sourceHome(model)?.folder;
  return tree.paths.filter(
    (path) =>
      names.includes(baseOf(path)) &&
      (isWithin(path, project.folder) || referenced.has(path) || folderOf(path) === home) &&
      tree.text(path)?.text.slice(0, 400).includes(placebookMark),
  );
}

/** The condition that holds in every test configuration and in no other: the one in use, DEBUG, or one of our own. */
function testCondition(
  { variants }: IosWireContext,
  language: Language,
  existing: string | undefined,
): string {
  const inUse = /^[ \t]*#if (\w+)[ \t]*\r?$/m.exec(existing ?? '')?.[1];
  const splits = (name: string) =>
    variants.every(({ scope, stage }) => conditions[language].of(scope).has(name) === (stage === 'test'));
  if (inUse && splits(inUse)) return inUse;
  return splits('DEBUG') ? 'DEBUG' : ownCondition;
}

function conditionChanges({ tree, variants, model }: IosWireContext, language: Language): Change[] {
  const { path } = model.project;
  const document = tree.text(path);
  if (!document) return [];
  const { key, of, own } = conditions[language];
  return variants.flatMap(({ scope, stage }): Change[] => {
    const { settings } = scope.own;
    if (!settings || of(scope).has(ownCondition) === (stage === 'test')) return [];
    const standing = entryOf(settings, key);
    const edits = (): Edit[] => {
      if (standing?.value.type === 'list') {
        if (stage === 'test') return [appendItem(document.text, standing.value, own, document.lineEnd)];
        return removeWords(document.text, standing, [own]);
      }
      const said = standing?.value.type === 'string' ? standing.value.value : '$(inherited)';
      const names = said.split(/\s+/).filter((name) => name !== own);
      const value = [...names, ...(stage === 'test' ? [own] : [])].join(' ');
      return setPbxString(document.text, settings, key, value, document.lineEnd);
    };
    return [{ path, platform, network: null, topic, rules: placebookRules, kind: 'edit', edits: edits() }];
  });
}

/** Makes the file one of the target's; nothing to do where the folder itself is synchronised. */
function membershipChanges({ tree, model }: IosWireContext, home: SourceHome, path: string): Change[] {
  const { project, target } = model;
  const document = tree.text(project.path);
  const compiled = !path.endsWith('.h');
  if (home.synchronised || !document || sourcePaths(model).includes(path)) return [];
  const { text, lineEnd } = document;
  const name = baseOf(path);
  const { file, build } = placebookIds(target.id, path);
  if (entryOf(project.objects, file)) return [];
  const relative = referenceIn(project, home.group, path);
  const type = path.endsWith('.swift')
    ? 'sourcecode.swift'
    : compiled
      ? 'sourcecode.c.objc'
      : 'sourcecode.c.h';
  const child = addToList(text, home.group, 'children', labelled(file, name), lineEnd);
  const listed = addToList(text, home.phase, 'files', labelled(build, `${name} in Sources`), lineEnd);
  if (!child || !listed) return [];
  const edits = [
    ...addObject(text, project.objects, 'PBXFileReference', fileReference(file, relative, type), lineEnd),
    child,
    ...(compiled
      ? [
          ...addObject(
            text,
            project.objects,
            'PBXBuildFile',
            buildFile(build, file, name, 'Sources'),
            lineEnd,
          ),
          listed,
        ]
      : []),
  ];
  return [{ path: project.path, platform, network: null, topic, rules: placebookRules, kind: 'edit', edits }];
}

/** The IDs of a placebook's objects in the project file. */
export function placebookIds(target: string, path: string): { file: string; build: string } {
  return { file: objectId(`file ${target} ${path}`), build: objectId(`build ${target} ${path}`) };
}
