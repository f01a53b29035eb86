import * as z from 'zod';

/** Why a build does not use what a tree declares, for people; `{about}` is what the reason concerns. */
const reasons = {
  nested: 'in {about}, where the SDK does not look',
  'setting-ignored': 'in a setting that Xcode ignores',
  'repository-ignored': 'ignored by Gradle',
  'repository-forbidden': 'forbidden by Gradle',
  removed: 'removed by {about}',
  'as-resource': 'given by {about}, which is a number to the SDK',
  'no-prefix': 'without a namespace prefix',
  'undeclared-prefix': 'under the undeclared prefix {about}',
  'foreign-prefix': 'under the foreign prefix {about}',
  'wrong-folder': 'in another folder',
  'outside-target': 'outside the target',
  'no-such-file': 'missing from the tree',
} as const;

export const Ineffective = z
  .object({
    reason: z.enum(Object.keys(reasons) as (keyof typeof reasons)[]),
    about: z
      .string()
      .optional()
      .meta({ description: 'What the reason concerns: the element around it, or its prefix.' }),
  })
  .meta({ description: 'Why the build does not use it.' });
export type Ineffective = z.infer<typeof Ineffective>;

export const Effective = z
  .union([z.literal(true), Ineffective])
  .meta({ description: 'Whether it is where the build looks: true, or why it is not.' });
export type Effective = z.infer<typeof Effective>;

/** Whether something is where the build looks. Everything that counts what a build carries asks this. */
export function isWhereBuildLooks({ effective }: { effective: Effective }): boolean {
  return effective === true;
}

/** Whether something is not where the build looks, for one reason. */
export function isIneffective(
  { effective }: { effective: Effective },
  reason: Ineffective['reason'],
): boolean {
  return effective !== true && effective.reason === reason;
}

/** Why the build does not use something, for people; undefined when it does. */
export function ineffectiveText(effective: Effective): string | undefined {
  if (effective === true) return undefined;
  return reasons[effective.reason].replace('{about}', effective.about ?? '');
}
