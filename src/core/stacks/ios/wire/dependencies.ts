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

/** Whether a network's SDK comes to the target by pods: it does already, or wiring would bring it so. */
export function byPods({ tree, model, survey }: IosWireContext, profile: Profile): boolean {
  const there = survey.facts.filter(
    (fact) => fact.kind === 'dependency' && fact.network === profile.id && fact.module === model.module,
  );
  if (there.length > 0) return there.some(({ place }) => /(^|\/)Podfile$/.test(place.path));
  return (profile.ios?.pods.length ?? 0) > 0 && podfileOf(tree, model.project.folder) !== undefined;
}

/** SDKs that enrolled networks need: as pods of the target where the tree has a Podfile, else as Swift packages. */
export function wireDependencies(context: IosWireContext): StackWiring {
  const { tree, model, title, profiles, survey } = context;
  const podfile = podfileOf(tree, model.project.folder);
  const changes: Change[] = [];
  const installs: ByHand[] = [];
  const undone: Profile[] = [];
  for (const profile of profiles.filter(({ id }) => isEnrolled(title, id, 'ios'))) {
    const there = survey.facts.some(
      (fact) => fact.kind === 'dependency' && fact.network === profile.id && fact.module === model.module,
    );
    if (there) continue;
    const base = {
      platform: 'ios' as const,
      network: profile.id,
      topic: 'dependency' as const,
      rules: ['build/dependency-missing'],
    };
    const [pod] = profile.ios?.pods ?? [];
    const [wanted] = profile.ios?.packages ?? [];
    if (pod && podfile !== undefined) {
      const edit = podEdit(context, podfile, `pod '${pod.name}', '~> ${pod.version}'`);
      if (edit) {
        changes.push({ ...base, path: podfile, kind: 'edit', edits: [edit] });
        installs.push(installStep(profile, podfile));
      } else undone.push(profile);
      continue;
    }
    const edits = wanted ? packageEdits(context, wanted) : null;
    if (!edits) {
      undone.push(profile);
      continue;
    }
    changes.push({ ...base, path: model.project.path, kind: 'edit', edits });
    installs.push(resolveStep(profile, model.project.path));
  }
  return { changes, byHand: [...installs, ...dependencySteps({ ...context, profiles: undone })] };
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

/** Adds a line at the end of the target's block; null where the Podfile has no such block. */
function podEdit({ tree, model }: IosWireContext, podfile: string, line: string): Edit | null {
  const document = tree.text(podfile);
  const read = tree.read(podfile, readPodfile);
  const block = read?.targets.find(({ name }) => name === model.target.name);
  if (!document || !block) return null;
  const { text, lineEnd } = document;
  const last = read?.pods.filter(({ start }) => start > block.start && start < block.end).at(-1);
  const outer = /^[ \t]*/.exec(text.slice(block.start))?.[0] ?? '';
  const indent = last ? indentAt(text, last.start) : `${outer}  `;
  return { start: block.end, end: block.end, text: `${indent}${line}${lineEnd}` };
}
