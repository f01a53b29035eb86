import { joined } from './joined.js';
import type { Profile } from '../../network/model.js';
import { profileFor } from '../../network/for-stack.js';
import type { Tree } from '../../tree/tree.js';
import { isWithin } from '../../text/paths.js';
import { nativeAndroid } from '../android/index.js';
import { nativeIos } from '../ios/index.js';
import type { Stack, StackSurvey, StackWiring, UnwireContext, WireContext } from '../stack.js';
import type { SurveyContext } from '../../roster/survey-context.js';

/** A native tree inside the tree of a stack that builds both platforms. */
export interface NativePart {
  stack: Stack;
  root: string;
  evidence: string[];
}

/** The native trees that are in the given folders. */
export function nativeParts(tree: Tree, folders: { android: string; ios: string }): NativePart[] {
  return (
    [
      [nativeAndroid, folders.android],
      [nativeIos, folders.ios],
    ] as const
  ).flatMap(([stack, folder]) =>
    stack
      .recognise(tree)
      .filter(({ root }) => isWithin(root, folder))
      .map(({ root, evidence }) => ({ stack, root, evidence })),
  );
}

/** Surveys native parts; their editions bear the name of the stack that they belong to. */
export function surveyParts(
  tree: Tree,
  parts: readonly NativePart[],
  stack: string,
  context: SurveyContext,
): StackSurvey {
  const surveys = parts.map((part) => part.stack.survey(tree, part.root, context));
  return {
    editions: surveys.flatMap(({ editions }) => editions.map((edition) => ({ ...edition, stack }))),
    facts: surveys.flatMap(({ facts }) => facts),
    unresolved: surveys.flatMap(({ unresolved }) => unresolved),
  };
}

/** Wires native parts: all but the code, which is another language's, and what a package brings. */
export function wireParts(
  tree: Tree,
  parts: readonly NativePart[],
  stack: string,
  context: WireContext,
): StackWiring {
  return joined(parts.map((part) => part.stack.wire(tree, part.root, hosted(context, stack))));
}

/** Takes a network out of native parts. */
export function unwireParts(
  tree: Tree,
  parts: readonly NativePart[],
  stack: string,
  context: UnwireContext,
): StackWiring {
  const network = profileFor(context.network, stack);
  return joined(
    parts.map((part) => part.stack.unwire(tree, part.root, { ...hosted(context, stack), network })),
  );
}

function hosted<Context extends WireContext>(context: Context, stack: string): Context {
  const adapt = (profiles: readonly Profile[]) => profiles.map((profile) => profileFor(profile, stack));
  return {
    ...context,
    profiles: adapt(context.profiles),
    allProfiles: adapt(context.allProfiles),
    hosted: true,
  };
}
