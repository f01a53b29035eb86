import { appendToBlock, blockAt } from '../../../formats/gradle/edit.js';
import { isWhereBuildLooks } from '../../../facts/effective.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { Profile } from '../../../network/model.js';
import type { ByHand, Change } from '../../../edits/model.js';
import { libraryFile, type Library } from '../../common/library-file.js';
import type { StackWiring } from '../../stack.js';
import { statementsOf } from '../../common/gradle/catalogs.js';
import type { AndroidWireContext } from './context.js';

/** Libraries that are handed out as files: copied to `libs` from a file that the person names, and taken in from there. */
export function wireBinaries(context: AndroidWireContext): StackWiring {
  const { title, profiles } = context;
  const parts = profiles
    .filter(({ id }) => isEnrolled(title, id, 'android'))
    .flatMap((profile) =>
      (profile.android?.binaries ?? []).map((binary) => wireBinary(context, profile, binary)),
    );
  return {
    changes: parts.flatMap(({ changes }) => changes),
    byHand: parts.flatMap(({ byHand }) => byHand),
  };
}

function wireBinary(context: AndroidWireContext, profile: Profile, binary: Library): StackWiring {
  const { tree, model, survey } = context;
  const { script, folder } = model.module;
  const taken = survey.facts.find(
    ({ kind, name, module }) =>
      kind === 'binary' && name === binary.file && module === context.edition.module,
  );
  if (taken && isWhereBuildLooks(taken)) return { changes: [], byHand: [] };
  const path = taken?.value ?? `${folder ? `${folder}/` : ''}libs/${binary.file}`;
  const base = {
    platform: 'android' as const,
    network: profile.id,
    topic: 'binary' as const,
    rules: ['build/binary-missing'],
  };
  const step = (what: string, why: string, where: string): StackWiring => ({
    changes: [],
    byHand: [{ platform: 'android', network: profile.id, rule: 'build/binary-missing', what, why, where }],
  });
  const laid = libraryFile(context, profile, binary, path);
  if (laid.byHand.length > 0) return laid;
  const { changes } = laid;
  if (taken) return { changes, byHand: [] };
  const document = tree.text(script);
  const block = blockAt(statementsOf(tree, script), ['dependencies']);
  if (!document || !block)
    return step(`Add implementation(files("libs/${binary.file}")) to dependencies.`, binary.why, script);
  const line = script.endsWith('.kts')
    ? `implementation(files("libs/${binary.file}"))`
    : `implementation files('libs/${binary.file}')`;
  const edit = appendToBlock(document.text, block, line, document.lineEnd);
  return { changes: [...changes, { ...base, path: script, kind: 'edit', edits: [edit] }], byHand: [] };
}

/** Files that an enrolled network's pages give out per application: put in their place when they are at hand. */
export function wireCompanion(context: AndroidWireContext): StackWiring {
  const { tree, model, title, profiles, extras, edition } = context;
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  for (const profile of profiles.filter(({ id }) => isEnrolled(title, id, 'android'))) {
    const companion = profile.android?.companion;
    const lying = context.survey.facts.some(
      (fact) => fact.kind === 'companion' && fact.network === profile.id && isWhereBuildLooks(fact),
    );
    if (!companion || lying) continue;
    const path = `${model.module.folder ? `${model.module.folder}/` : ''}${companion.file}`;
    const given = extras.companions.find(({ name }) => name === companion.file.split('/').at(-1));
    if (given && !tree.has(path)) {
      changes.push({
        path,
        platform: 'android',
        network: profile.id,
        topic: 'companion',
        rules: ['companion/missing'],
        kind: 'create',
        content: given.content,
      });
    } else if (!given)
      byHand.push({
        platform: 'android',
        network: profile.id,
        rule: 'companion/missing',
        what: `Get ${companion.file} for ${edition.identifier ?? 'this application'} at ${profile.site ?? profile.name}, then wire with --file FOLDER/${companion.file}: it is copied to ${path}.`,
        why: `${profile.name}: ${companion.why}`,
        where: path,
      });
  }
  return { changes, byHand };
}
