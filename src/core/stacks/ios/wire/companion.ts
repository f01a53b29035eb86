import { entryOf, stringOf, stringsOf } from '../../../formats/pbxproj/read.js';
import { baseOf } from '../../../text/paths.js';
import { isIneffective, isWhereBuildLooks } from '../../../facts/effective.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { Edit } from '../../../text/edit.js';
import type { ByHand, Change } from '../../../edits/model.js';
import type { StackWiring } from '../../stack.js';
import { membershipOf } from '../survey/membership.js';
import { addObject, addToList, buildFile, fileReference, objectId } from './pbx-objects.js';
import { labelled } from '../../../formats/pbxproj/edit.js';
import { filePaths } from '../survey/project.js';
import { mainGroup, referenceIn } from './references.js';
import { sourceHome } from '../survey/sources.js';
import type { IosWireContext } from './context.js';

/** Files that a network's pages give out per application: put in their place, and among the target's resources. */
export function wireCompanion(context: IosWireContext): StackWiring {
  const { tree, model, title, profiles, extras, edition } = context;
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  for (const profile of profiles.filter(({ id }) => isEnrolled(title, id, 'ios'))) {
    const companion = profile.ios?.companion;
    if (!companion) continue;
    const name = baseOf(companion.file);
    const facts = context.survey.facts.filter(
      (fact) => fact.kind === 'companion' && fact.network === profile.id && fact.module === model.module,
    );
    if (facts.some(isWhereBuildLooks)) continue;
    const lying = facts.find((fact) => isIneffective(fact, 'outside-target'))?.name;
    const given = extras.companions.find((file) => file.name === name);
    const folder = sourceHome(model)?.folder ?? model.project.folder;
    const path = lying ?? `${folder ? `${folder}/` : ''}${companion.file}`;
    const base = {
      platform: 'ios' as const,
      network: profile.id,
      topic: 'companion' as const,
      rules: ['companion/missing', 'companion/outside-target'],
    };
    if (lying === undefined && !given) {
      byHand.push({
        platform: 'ios',
        network: profile.id,
        rule: 'companion/missing',
        what: `Get ${companion.file} for ${edition.identifier ?? 'this application'} at ${profile.site ?? profile.name}, then wire with --file FOLDER/${name}: it is copied to ${path} and added to the target.`,
        why: `${profile.name}: ${companion.why}`,
        where: path,
      });
      continue;
    }
    if (lying === undefined && given && !tree.has(path))
      changes.push({ ...base, path, kind: 'create', content: given.content });
    const edits = resourceEdits(context, path);
    if (edits && edits.length > 0) changes.push({ ...base, path: model.project.path, kind: 'edit', edits });
    else if (!edits)
      byHand.push({
        platform: 'ios',
        network: profile.id,
        rule: 'companion/outside-target',
        what: `Add ${path} to the resources of the target ${model.target.name}.`,
        why: `${profile.name}: ${companion.why}`,
        where: model.project.path,
      });
  }
  return { changes, byHand };
}

/** Makes a file one of the target's resources; none where its folder does that by itself, null where it cannot be determined how. */
function resourceEdits({ tree, model }: IosWireContext, path: string): Edit[] | null {
  const { project, target } = model;
  const document = tree.text(project.path);
  if (!document) return null;
  if (membershipOf(model).copies(path)) return [];
  const { text, lineEnd } = document;
  const phase = stringsOf(target.entry.value, 'buildPhases')
    .map((id) => entryOf(project.objects, id))
    .find((entry) => stringOf(entry?.value, 'isa') === 'PBXResourcesBuildPhase');
  const group = mainGroup(project);
  const paths = filePaths(project.objects, group?.key, project.folder);
  const known = [...paths].find(([, where]) => where === path)?.[0];
  if (!phase || !group) return null;
  const name = baseOf(path);
  const id = (role: string) => objectId(`${role} ${target.id} ${path}`);
  const file = known ?? id('file');
  const relative = referenceIn(project, group, path);
  const type = name.endsWith('.plist') ? 'text.plist.xml' : 'text.json';
  const child = known ? undefined : addToList(text, group, 'children', labelled(file, name), lineEnd);
  const listed = addToList(text, phase, 'files', labelled(id('build'), `${name} in Resources`), lineEnd);
  if (!listed || (!known && !child)) return null;
  return [
    ...addObject(
      text,
      project.objects,
      'PBXBuildFile',
      buildFile(id('build'), file, name, 'Resources'),
      lineEnd,
    ),
    ...(child
      ? [
          ...addObject(
            text,
            project.objects,
            'PBXFileReference',
            fileReference(file, relative, type),
            lineEnd,
          ),
          child,
        ]
      : []),
    listed,
  ];
}
