import type { Fact } from '../../../facts/model.js';
import type { Profile } from '../../../network/model.js';
import { podfileOf } from '../survey/dependencies.js';
import type { IosWireContext } from './context.js';

type Needs = NonNullable<Profile['ios']>;

/** What a target still lacks of a network's SDK, in the form that it comes in: by pods, or as Swift packages. */
export type LackingSdk =
  { by: 'pods'; pods: Needs['pods'] } | { by: 'packages'; packages: Needs['packages'] };

/** Whether a network's SDK comes to the target by pods: it does already, or wiring would bring it so. */
export function byPods({ tree, model, survey }: IosWireContext, profile: Profile): boolean {
  const there = sdkFacts(survey.facts, profile, model.module);
  if (there.length > 0) return there.some(isPod);
  return (profile.ios?.pods.length ?? 0) > 0 && podfileOf(tree, model.project.folder) !== undefined;
}

/** What is missing of a network's SDK; undefined if it is complete. */
export function lackingSdk(context: IosWireContext, profile: Profile): LackingSdk | undefined {
  const { pods = [], packages = [] } = profile.ios ?? {};
  const there = sdkFacts(context.survey.facts, profile, context.model.module);
  const names = new Set(there.map(({ name = '' }) => name.split('/')[0]));
  // A file that the network's SDK is linked from is neither: nothing is missing beside it.
  if (
    there.length > 0 &&
    !there.some((fact) => isPod(fact) || packages.some(({ product }) => product === fact.name))
  )
    return undefined;
  if (pods.length > 0 && (byPods(context, profile) || packages.length === 0)) {
    const lacking = pods.filter(({ name }) => !names.has(name));
    return lacking.length > 0 ? { by: 'pods', pods: lacking } : undefined;
  }
  const lacking = packages.filter(({ product }) => !names.has(product));
  return lacking.length > 0 ? { by: 'packages', packages: lacking } : undefined;
}

function sdkFacts(facts: readonly Fact[], { id }: Profile, module: string): Fact[] {
  return facts.filter((fact) => fact.kind === 'dependency' && fact.network === id && fact.module === module);
}

function isPod({ place }: Fact): boolean {
  return /(^|\/)Podfile$/.test(place.path);
}
