import * as z from 'zod';
import type { LanguageName } from '../languages/index.js';
import { reasoned, Why, type Platform } from '../words/words.js';
import { valueAt } from '../text/own-values.js';

/** A version as profiles write it. */
export const Version = z.string().min(1).max(40);

/** The package by which a network is published for a stack, with the reason for its version. */
const published = { package: z.string().min(1).max(120), version: Version };

/** What every part of a profile for a stack gives: the network's package. */
export interface StackPackage {
  package: string;
  version: string;
  why: string;
}

/** The parts of a profile for stacks, by the stack's id: a package, or why there is none. */
export type StackParts = Record<string, { none: string } | StackPackage | undefined>;

/** What a network's package asks of a tree, in the same terms for every stack. */
export interface Requirements extends StackPackage {
  /** The lowest version of the stack's framework that the package runs on. */
  framework?: string | undefined;
  /** Where the package is published, when it is not the usual place. */
  feed?: string | undefined;
  /** Symbols without which code of the network is left out of a build. */
  symbols?: readonly string[];
  /** The command that fetches the native libraries which the package names. */
  fetch?: string | undefined;
  /** The options of the package's plugin that take app IDs; undefined where it has no plugin. */
  pluginOptions?: Partial<Record<Platform, string>> | undefined;
  /** Files of the tree, by their paths below its root, that the package keeps its settings in. */
  files?: readonly string[];
}

/** A requirement of native builds: a field of `android` or `ios` in a profile. */
type AndroidNeed =
  | 'permissions'
  | 'components'
  | 'meta-data'
  | 'merge'
  | 'java'
  | 'desugaring'
  | 'shrinker'
  | 'binaries'
  | 'companion'
  | 'plugin'
  | 'application';
type IosNeed = 'linker-flags' | 'companion';

/** How networks publish packages for a stack. */
export interface PackagePart<Needs extends z.ZodType = z.ZodType> {
  /** The part of a profile that a network fills for this stack. */
  needs: Needs;
  /** What a package sees to by itself, besides native dependencies and where they come from. */
  brings: { android: readonly AndroidNeed[]; ios: readonly IosNeed[] };
  /** Where in the part the names of fields for app IDs are. */
  appIdFields?: readonly string[];
  /** Where a tree says which feeds packages come from, in the words of its tools. */
  feeds?: string;
  /** What the package asks of a tree, besides being depended on. */
  requires(needs: z.output<Needs>): Omit<Requirements, keyof StackPackage>;
}

/** What is known of a stack before a tree is read: what profiles, steps and lists need. */
export interface StackDescription {
  id: string;
  /** The name that people know it by. */
  name: string;
  /** The languages that its own code is written in, the usual one first. */
  languages: readonly LanguageName[];
  /** The platform, for a stack that builds one only. */
  native?: Platform;
  /** Requirements of Android builds that mean nothing in its trees, which hold no Gradle scripts. */
  lacks?: readonly AndroidNeed[];
  /** How networks publish packages for it; undefined where their native SDKs are used. */
  packages?: PackagePart;
}

/** A part of a profile that names a package, with fields of a stack's own. */
export const packageNeeds = <Shape extends z.ZodRawShape>(shape: Shape) =>
  z.lazy(() => reasoned({ ...published, ...shape }));

/** Describes a stack, with the types of its part of the profile kept. */
export function describeStack<
  const Id extends string,
  Needs extends z.ZodType,
  Described extends Omit<StackDescription, 'id' | 'packages'>,
>(description: Described & { id: Id; packages: PackagePart<Needs> }) {
  return {
    ...description,
    /** What a network's part of the profile says; undefined where the network has no package for the stack. */
    needsOf({ stacks }: { stacks: StackParts }): z.output<Needs> | undefined {
      const given = valueAt(stacks, description.id);
      // Profiles are read by the schema that `packages.needs` is part of.
      return given && 'package' in given ? (given as z.output<Needs>) : undefined;
    },
  };
}

/** A stack's part of the profile, or that the network has nothing for it, and why. */
export const orNone = <Needs extends z.ZodType>(needs: Needs) =>
  z.union([z.strictObject({ none: Why }), needs]).optional();
