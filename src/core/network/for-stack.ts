import { valueAt } from '../text/own-values.js';
import { nativeLanguages, type LanguageName } from '../languages/index.js';
import type { PackagePart, Requirements, StackPackage } from '../stacks/description.js';
import { stackNamed } from './described.js';
import type { Profile } from './model.js';

/** The package of a network for a stack; undefined where it has none, or the stack has no packages of its own. */
export function packageFor({ stacks }: Profile, stack: string): StackPackage | undefined {
  const needs = valueAt(stacks, stack);
  return needs && 'package' in needs ? needs : undefined;
}

/** What a network's package asks of a tree of a stack; undefined where it has no package for it. */
export function requirementsOf(profile: Profile, stack: string): Requirements | undefined {
  const found = packageFor(profile, stack);
  const packages = stackNamed(stack)?.packages;
  return (
    found &&
    packages && {
      package: found.package,
      version: found.version,
      why: found.why,
      ...packages.requires(found),
    }
  );
}

const known = new WeakMap<Profile, Map<string, Profile>>();

/**
 * A profile as a stack has to meet it: with the code of its languages, and, where the network is published as a
 * package for it, without the native dependencies, repositories and linker flags, which that package brings.
 */
export function profileFor(profile: Profile, stack: string): Profile {
  const mine = known.get(profile) ?? new Map<string, Profile>();
  known.set(profile, mine);
  const made = mine.get(stack) ?? adapted(profile, stack);
  mine.set(stack, made);
  return made;
}

function adapted(profile: Profile, stack: string): Profile {
  const described = stackNamed(stack);
  const brings = packageFor(profile, stack) && described?.packages?.brings;
  // Without a package the SDK is called from the native code of the title's own.
  const native: readonly LanguageName[] = brings || described?.native ? [] : nativeLanguages();
  const code = described
    ? Object.fromEntries(
        [...described.languages, ...native].flatMap((name) =>
          profile.code[name] ? [[name, profile.code[name]]] : [],
        ),
      )
    : profile.code;
  const own = brings ? { ...profile, code, ...nativeNeeds(profile, brings) } : { ...profile, code };
  const { android } = own;
  return android && described?.lacks ? { ...own, android: without(android, described.lacks) } : own;
}

/** What is left to ask of the native builds beside a package. */
function nativeNeeds(
  { android, ios }: Profile,
  brings: PackagePart['brings'],
): Pick<Profile, 'android' | 'ios'> {
  return {
    ...(android ? { android: without(android, ['dependencies', 'repositories', ...brings.android]) } : {}),
    ...(ios ? { ios: without(ios, ['pods', 'packages', ...brings.ios]) } : {}),
  };
}

/** The needs without some of them: lists become empty, single ones go. */
function without<Needs extends object>(needs: Needs, names: readonly (keyof Needs)[]): Needs {
  const left = { ...needs };
  for (const name of names) {
    if (Array.isArray(left[name])) left[name] = [] as Needs[typeof name];
    else delete left[name];
  }
  return left;
}
