import { readPodfile } from '../../formats/podfile/read.js';
import { indentAt } from '../../formats/xml/edit.js';
import type { Profile } from '../../network/model.js';
import { isEnrolled } from '../../roster/expected.js';
import type { Edit } from '../../text/edit.js';
import type { ByHand, Change } from '../../wiring/model.js';
import type { StackWiring } from '../stack.js';
import { podfileOf } from './dependencies.js';
import { dependencySteps } from './hand-dependencies.js';
import type { IosWireContext } from './wire-context.js';

/** SDKs that enrolled networks need: as pods of the target where the tree has a Podfile; else by hand. */
export function wireDependencies(context: IosWireContext): StackWiring {
  const { tree, model, title, profiles, survey } = context;
  const podfile = podfileOf(tree, model.project.folder);
  const changes: Change[] = [];
  const installs: ByHand[] = [];
  const undone: Profile[] = [];
  for (const profile of profiles.filter(({ id }) => isEnrolled(title, id, 'ios'))) {
    const there = survey.facts.some(
      (fact) =>
        fact.kind === 'dependency' && fact.network === profile.id && fact.module === model.target.name,
    );
    const [pod] = profile.ios?.pods ?? [];
    if (there) continue;
    const edit =
      pod && podfile !== undefined
        ? podEdit(context, podfile, `pod '${pod.name}', '~> ${pod.version}'`)
        : null;
    if (edit === null || podfile === undefined) {
      undone.push(profile);
      continue;
    }
    changes.push({
      path: podfile,
      platform: 'ios',
      network: profile.id,
      rules: ['build/dependency-missing'],
      edits: [edit],
    });
    installs.push({
      platform: 'ios',
      network: profile.id,
      rule: null,
      what: 'Run pod install, and open the workspace from then on.',
      why: 'The Podfile only names the pod; the project builds with it after the next install.',
      where: podfile,
    });
  }
  return { changes, byHand: [...installs.slice(0, 1), ...dependencySteps({ ...context, profiles: undone })] };
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
