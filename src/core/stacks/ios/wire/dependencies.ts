import { readPodfile } from '../../../formats/podfile/read.js';
import { indentAt } from '../../../formats/xml/edit.js';
import type { Profile } from '../../../network/model.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { Edit } from '../../../text/edit.js';
import type { ByHand, Change } from '../../../edits/model.js';
import type { StackWiring } from '../../stack.js';
import { podfileOf } from '../survey/dependencies.js';
import { dependencySteps } from './hand-dependencies.js';
import type { IosWireContext } from './context.js';
import { packageEdits } from './packages.js';
import { lackingSdk } from './sdk.js';

/** SDKs that enrolled networks need: as pods of the target where the tree has a Podfile, else as Swift packages. */
export function wireDependencies(context: IosWireContext): StackWiring {
  const { tree, model, title, profiles } = context;
  const podfile = podfileOf(tree, model.project.folder);
  const changes: Change[] = [];
  const installs: ByHand[] = [];
  const undone: Profile[] = [];
  for (const profile of profiles.filter(({ id }) => isEnrolled(title, id, 'ios'))) {
    const lacking = lackingSdk(context, profile);
    if (!lacking) continue;
    const base = {
      platform: 'ios' as const,
      network: profile.id,
      topic: 'dependency' as const,
      rules: ['build/dependency-missing'],
      kind: 'edit' as const,
    };
    if (lacking.by === 'pods') {
      const lines = lacking.pods.map((pod) => podLine(context, profile, pod));
      const edit = podfile === undefined ? null : podEdit(context, podfile, lines);
      if (podfile !== undefined && edit) {
        changes.push({ ...base, path: podfile, edits: [edit] });
        installs.push(installStep(profile, podfile));
      } else undone.push(profile);
      continue;
    }
    const edits = packageEdits(context, lacking.packages);
    if (!edits) {
      undone.push(profile);
      continue;
    }
    changes.push({ ...base, path: model.project.path, edits });
    installs.push(resolveStep(profile, model.project.path));
  }
  return { changes, byHand: [...installs, ...dependencySteps({ ...context, profiles: undone })] };
}

type Pod = NonNullable<Profile['ios']>['pods'][number];

/** The line of a pod, with the requirement of others that must have the same version. */
function podLine({ survey, model }: IosWireContext, profile: Profile, pod: Pod): string {
  const others = (profile.ios?.pods ?? []).filter(({ together }) => together === pod.together);
  const there = survey.facts.find(
    (fact) =>
      fact.kind === 'dependency' &&
      fact.module === model.module &&
      fact.value !== '' &&
      others.some(({ name }) => name === fact.name),
  );
  const requirement = pod.together === undefined ? undefined : there?.value;
  return `pod '${pod.name}', '${requirement ?? `~> ${pod.version}`}'`;
}

function installStep({ id, name }: Profile, podfile: string): ByHand {
  return {
    platform: 'ios',
    network: id,
    rule: null,
    what: 'Run pod install, and open the workspace from then on, not the project.',
    why: `The Podfile only names the pod of ${name}; the project builds with it after the next install.`,
    where: podfile,
  };
}

function resolveStep({ id, name }: Profile, project: string): ByHand {
  return {
    platform: 'ios',
    network: id,
    rule: null,
    what: 'Open the project once, so that its packages are resolved, and commit Package.resolved.',
    why: `The project only names the package of ${name}; the version that is built is in Package.resolved.`,
    where: project,
  };
}

/** Adds lines at the end of the target's block; null where the Podfile has no such block. */
function podEdit({ tree, model }: IosWireContext, podfile: string, lines: readonly string[]): Edit | null {
  const document = tree.text(podfile);
  const read = tree.read(podfile, readPodfile);
  const block = read?.targets.find(({ name }) => name === model.target.name);
  if (!document || !block) return null;
  const { text, lineEnd } = document;
  const last = read?.pods.filter(({ start }) => start > block.start && start < block.end).at(-1);
  const outer = /^[ \t]*/.exec(text.slice(block.start))?.[0] ?? '';
  const indent = last ? indentAt(text, last.start) : `${outer}  `;
  return {
    start: block.end,
    end: block.end,
    text: lines.map((line) => `${indent}${line}${lineEnd}`).join(''),
  };
}
