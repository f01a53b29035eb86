import { isEnrolled } from '../../../roster/expected.js';
import type { ByHand } from '../../../edits/model.js';
import { podfileOf } from '../survey/dependencies.js';
import type { IosWireContext } from './context.js';

/** The line that adds each missing SDK: a pod where the tree has a Podfile, else a Swift package. */
export function dependencySteps({ tree, model, title, profiles, survey }: IosWireContext): ByHand[] {
  const podfile = podfileOf(tree, model.project.folder);
  return profiles
    .filter(({ id }) => isEnrolled(title, id, 'ios'))
    .flatMap((profile): ByHand[] => {
      const [pod] = profile.ios?.pods ?? [];
      const [swiftPackage] = profile.ios?.packages ?? [];
      const there = survey.facts.some(
        (fact) => fact.kind === 'dependency' && fact.network === profile.id && fact.module === model.module,
      );
      if (there || (!pod && !swiftPackage)) return [];
      const base = { platform: 'ios' as const, network: profile.id, rule: 'build/dependency-missing' };
      if (pod && (podfile || !swiftPackage)) {
        const what = `Add pod '${pod.name}', '~> ${pod.version}' to the target ${model.target.name}, then run pod install and open the workspace.`;
        return [{ ...base, what, why: `${profile.name}: ${pod.why}`, where: podfile ?? 'Podfile' }];
      }
      if (!swiftPackage) return [];
      const what = `Add the package ${swiftPackage.url} from ${swiftPackage.version}, and its product ${swiftPackage.product} to the target ${model.target.name}.`;
      return [{ ...base, what, why: `${profile.name}: ${swiftPackage.why}`, where: model.project.path }];
    });
}
