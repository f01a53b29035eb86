import { z } from 'zod';
import { Platform } from '../network/model.js';

export const TextEdit = z
  .object({ start: z.number().int().min(0), end: z.number().int().min(0), text: z.string() })
  .meta({
    description:
      'Replace the characters from start up to end (UTF-16 offsets, byte order mark left out) by text.',
  });

/** One change that wiring wants, with the rules whose findings it mends. Several may concern one file. */
export interface Change {
  path: string;
  platform: z.infer<typeof Platform>;
  network: string | null;
  rules: string[];
  /** Edits of an existing file, or the whole text of a new one (or one that Syndexa owns). */
  edits?: z.infer<typeof TextEdit>[];
  content?: string;
}

export const ByHand = z
  .object({
    platform: Platform.nullable(),
    network: z.string().nullable(),
    rule: z.string().nullable().meta({ description: 'The rule whose finding this would mend, if any.' }),
    what: z.string(),
    why: z.string(),
    where: z.string().nullable().meta({ description: 'The file, or the command, where it is done.' }),
  })
  .meta({ description: 'What wiring leaves to a person, and why.' });
export type ByHand = z.infer<typeof ByHand>;

export const FileEdit = z
  .object({
    path: z.string(),
    rules: z.array(z.string()),
    networks: z.array(z.string()),
    platforms: z.array(Platform),
    before: z
      .string()
      .nullable()
      .meta({ description: 'SHA-256 of the file that the edits were made for; null for a new file.' }),
    edits: z.array(TextEdit),
    content: z.string().nullable().meta({ description: 'The whole text, for a new file.' }),
  })
  .meta({ description: 'All edits of one file.' });
export type FileEdit = z.infer<typeof FileEdit>;

export const Wiring = z
  .object({
    edits: z.array(FileEdit),
    patch: z.string().meta({ description: 'The same as a unified diff that git apply takes.' }),
    byHand: z.array(ByHand),
  })
  .meta({ title: 'Wiring', description: 'The edits that would make a tree agree with the roster.' });
export type Wiring = z.infer<typeof Wiring>;
