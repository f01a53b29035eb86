import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { appendItem, insertLine, pbxString, setPbxString } from '../../formats/pbxproj/edit.js';
import { entryOf, stringOf } from '../../formats/pbxproj/read.js';
import { needsPlacebook, placebookContents } from '../../placebook/contents.js';
import { placebookMark } from '../../placebook/model.js';
import { swiftPlacebook } from '../../placebook/swift.js';
import { baseOf, folderOf, isWithin } from '../../tree/paths.js';
import type { Edit } from '../../text/edit.js';
import type { ByHand, Change } from '../../wiring/model.js';
import { placebookRules } from '../../wiring/steps.js';
import type { StackWiring } from '../stack.js';
import { sourceHome, sourcePaths, type SourceHome } from './sources.js';
import { swiftConditionsOf } from './settings.js';
import type { IosWireContext } from './wire-context.js';

const platform = 'ios' as const;
const ownCondition = 'SYNDEXA_TEST';

/** The Swift placebook: one file, compiled into the target, that picks the stage by a condition. */
export function wirePlacebook(context: IosWireContext): StackWiring {
  const { tree, model, title, profiles } = context;
  if (!needsPlacebook(title, profiles, platform)) return { changes: [], byHand: [] };
  const home = sourceHome(model);
  if (!home) {
    const step: ByHand = {
      platform,
      network: null,
      rule: 'unit-id/not-in-build',
      what: `Add a Swift file to the target ${model.target.name}, then wire again.`,
      why: 'The placebook stands beside the target’s other Swift files, and it has none.',
      where: model.project.path,
    };
    return { changes: [], byHand: [step] };
  }
  const standing = tree.paths.find(
    (path) =>
      baseOf(path) === 'Placebook.swift' &&
      isWithin(path, model.project.folder) &&
      tree.text(path)?.text.slice(0, 400).includes(placebookMark),
  );
  const path = standing ?? `${home.folder ? `${home.folder}/` : ''}Placebook.swift`;
  const existing = standing ? tree.text(standing)?.text : undefined;
  const condition = testCondition(context, existing);
  const content = swiftPlacebook(
    placebookContents(title, profiles, platform, 'test'),
    placebookContents(title, profiles, platform, 'production'),
    { title: title.name, testCondition: condition },
  );
  const changes: Change[] = [];
  if (existing?.replace(/\r\n/g, '\n') !== content)
    changes.push({ path, platform, network: null, rules: placebookRules, content });
  if (condition === ownCondition) changes.push(...conditionChanges(context));
  changes.push(...membershipChanges(context, home, path));
  return { changes, byHand: [] };
}

/** The condition that holds in every test configuration and in no other: the one in use, DEBUG, or one of our own. */
function testCondition({ variants }: IosWireContext, existing: string | undefined): string {
  const inUse = /^\s*#if (\w+)\s*$/m.exec(existing ?? '')?.[1];
  const splits = (name: string) =>
    variants.every(({ scope, stage }) => swiftConditionsOf(scope).has(name) === (stage === 'test'));
  if (inUse && splits(inUse)) return inUse;
  return splits('DEBUG') ? 'DEBUG' : ownCondition;
}

function conditionChanges({ tree, variants, model }: IosWireContext): Change[] {
  const { path } = model.project;
  const document = tree.text(path);
  if (!document) return [];
  const key = 'SWIFT_ACTIVE_COMPILATION_CONDITIONS';
  return variants.flatMap(({ scope, stage }): Change[] => {
    const { settings } = scope.own;
    const conditions = swiftConditionsOf(scope);
    if (!settings || conditions.has(ownCondition) === (stage === 'test')) return [];
    const standing = entryOf(settings, key);
    const edits = (): Edit[] => {
      if (standing?.value.type === 'list')
        return [appendItem(document.text, standing.value, ownCondition, document.lineEnd)];
      const own = standing?.value.type === 'string' ? standing.value.value : '$(inherited)';
      const names = own.split(/\s+/).filter((name) => name !== ownCondition);
      return setPbxString(
        document.text,
        settings,
        key,
        [...names, ...(stage === 'test' ? [ownCondition] : [])].join(' '),
        document.lineEnd,
      );
    };
    return [{ path, platform, network: null, rules: placebookRules, edits: edits() }];
  });
}

/** Makes the file one of the target's sources; nothing to do where the folder itself is synchronised. */
function membershipChanges({ tree, model }: IosWireContext, home: SourceHome, path: string): Change[] {
  const { project, target } = model;
  const document = tree.text(project.path);
  if (home.synchronised || !document || sourcePaths(model).includes(path)) return [];
  const { text, lineEnd } = document;
  const name = baseOf(path);
  const id = (role: string) => objectId(`${role} ${target.id} ${path}`);
  const [file, build] = [id('file'), id('build')];
  const relative = home.groupFolder === '' ? path : path.slice(home.groupFolder.length + 1);
  const reference =
    `${file} /* ${name} */ = {isa = PBXFileReference; fileEncoding = 4; lastKnownFileType = sourcecode.swift; ` +
    `${relative === name ? '' : `name = ${name}; `}path = ${pbxString(relative)}; sourceTree = "<group>"; };`;
  const buildFile = `${build} /* ${name} in Sources */ = {isa = PBXBuildFile; fileRef = ${file} /* ${name} */; };`;
  const first = (isa: string) =>
    project.objects.entries.find((entry) => stringOf(entry.value, 'isa') === isa);
  const [firstReference, firstBuild] = [first('PBXFileReference'), first('PBXBuildFile')];
  const children = entryOf(home.group.value, 'children')?.value;
  const files = entryOf(home.phase.value, 'files')?.value;
  if (!firstReference || !firstBuild || !children || !files || folderOf(relative).startsWith('..')) return [];
  const edits = [
    insertLine(text, firstBuild.start, buildFile, lineEnd),
    insertLine(text, firstReference.start, reference, lineEnd),
    appendItem(text, children, `${file} /* ${name} */`, lineEnd),
    appendItem(text, files, `${build} /* ${name} in Sources */`, lineEnd),
  ];
  return [{ path: project.path, platform, network: null, rules: ['unit-id/not-in-build'], edits }];
}

/** An object ID of 24 hexadecimal digits, the same whenever the same file is added to the same target. */
function objectId(text: string): string {
  return bytesToHex(sha256(utf8ToBytes(text)))
    .slice(0, 24)
    .toUpperCase();
}
