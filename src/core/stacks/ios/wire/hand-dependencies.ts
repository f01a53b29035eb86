import { isEnrolled } from '../../../roster/expected.js';
import type { ByHand } from '../../../edits/model.js';
import { podfileOf } from '../survey/dependencies.js';
import type { IosWireContext } from './context.js';
import { lackingSdk } from './sdk.js';

/** The line that adds each missing SDK: a pod where the tree has a Podfile, else a Swift package. */
export function dependencySteps(context: IosWireContext): ByHand[] {
  const { tree, model, title, profiles } = context;
  const podfile = podfileOf(tree, model.project.folder);
  return profiles
    .filter(({ id }) => isEnrolled(title, id, 'ios'))
    .flatMap((profile): ByHand[] => {
      const lacking = lackingSdk(context, profile);
      const base = { platform: 'ios' as const, network: profile.id, rule: 'build/dependency-missing' };
      if (lacking?.by === 'pods')
        return lacking.pods.map((pod) => ({
          ...base,
          what: `Add pod '${pod.name}', '~> ${pod.version}' to the target ${model.target.name}, then run pod install and open the workspace.`,
          why: `${profile.name}: ${pod.why}`,
          where: podfile ?? 'Podfile',
        }));
      return (lacking?.packages ?? []).map(({ url, version, product, why }) => ({
        ...base,
        what: `Add the package ${url} from ${version}, and its product ${product} to the target ${model.target.name}.`,
        why: `${profile.name}: ${why}`,
        where: model.project.path,
      }));
    });
}
