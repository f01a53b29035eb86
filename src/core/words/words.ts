import * as z from 'zod';
import { formatNames, platformNames, stageNames } from './names.js';

export const Platform = z.enum(platformNames).meta({ description: 'The platform of an edition.' });
export type Platform = z.infer<typeof Platform>;
export const platforms = Platform.options;

export const Stage = z.enum(stageNames).meta({ description: 'What a variant is for.' });
export type Stage = z.infer<typeof Stage>;
export const stages = Stage.options;

export const Format = z.enum(formatNames).meta({ description: 'The format of a placement.' });
export type Format = z.infer<typeof Format>;

export const Slug = z
  .string()
  .regex(/^[a-z][a-z0-9]*(-[a-z0-9]+)*$/, 'Small letters, digits and single dashes only, a letter first.')
  .max(64)
  // The one name of this shape that every object has a member of.
  .refine((name) => name !== 'constructor', 'constructor is a word of the language; choose another name.');

export const Duration = z
  .string()
  .regex(/^[1-9]\d{0,5}(s|m|h|d)$/, 'A whole number with its unit: 60s, 5m, 2h or 1d.')
  .meta({ description: 'A time: a whole number and s, m, h or d.' });

export const Why = z
  .string()
  .min(8)
  .max(400)
  .meta({ description: 'Why the network requires it, from its integration page.' });

/** An object of the model that gives its reason. */
export const reasoned = <Shape extends z.ZodRawShape>(shape: Shape) => z.strictObject({ ...shape, why: Why });

/** A path below a tree's root: no way out of it. */
export const TreePath = z
  .string()
  .max(200)
  .regex(
    /^(?!\/)(?!.*(?:^|\/)\.\.?(?:\/|$))[\w .@{}+-]+(\/[\w .@{}+-]+)*$/,
    'A path below the root, with forward slashes and without dots.',
  );

/** Whether a tree could be compared with a title. Anything but `title` means that nothing was compared. */
export const Compared = z.enum(['title', 'no-title', 'no-networks', 'no-edition']).meta({
  description:
    'Whether the tree was compared with a title: no title fits, the title uses no network, or the tree builds no edition of it.',
});
export type Compared = z.infer<typeof Compared>;
