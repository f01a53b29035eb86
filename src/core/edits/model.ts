import * as z from 'zod';
import type { Edit } from '../text/edit.js';
import { Compared, Platform } from '../words/words.js';

export const TextEdit = z
  .object({ start: z.number().int().min(0), end: z.number().int().min(0), text: z.string() })
  .meta({
    description:
      'Replace the characters from start up to end (UTF-16 offsets, without the byte order mark) by text.',
  });

/** What wiring is about, each a part that may be chosen by itself. */
export const topics = {
  'app-id': 'App ID',
  permissions: 'Permissions',
  components: 'Components',
  'meta-data': 'Meta-data',
  merge: 'Merge directives',
  application: 'Application class',
  dependency: 'SDK and repository',
  plugin: 'Build plugin',
  binary: 'Library file',
  companion: 'Companion file',
  'compile-options': 'Compile options',
  shrinker: 'Shrinker rules',
  levels: 'SDK levels',
  layouts: 'IDs in layouts',
  keys: 'Property-list keys',
  attribution: 'Attribution list',
  linker: 'Linker flags',
  symbols: 'Scripting symbols',
  switches: 'Switches',
  'build-steps': 'Build steps',
  placebook: 'Placebook',
  'call-sites': 'IDs in code',
} as const;
export type Topic = keyof typeof topics;
export const Topic = z.enum(Object.keys(topics) as [Topic, ...Topic[]]);

/** A file that the person names, to be copied into the tree: its content stays with whoever asks. */
export const SourceFile = z
  .object({
    name: z.string().regex(/^[\w][\w.-]{0,119}$/, 'The name of a file, without a folder.'),
    sha256: z.string().regex(/^[0-9a-f]{64}$/),
    size: z.number().int().min(0),
  })
  .meta({ description: 'A file that is copied into the tree as it is, known by its hash.' });
export type SourceFile = z.infer<typeof SourceFile>;

/** What every change says: which file it concerns, for what, and which rules' findings it fixes. */
export interface ChangeBase {
  path: string;
  platform: z.infer<typeof Platform>;
  /** The other platforms that the same edits are for, where both are built from one source. */
  also?: readonly z.infer<typeof Platform>[];
  network: string | null;
  topic: Topic;
  rules: string[];
  /** The variants that it is for; all of them when it does not say. */
  variants?: string[];
  /** Its additions that others may need too: removed again only if wiring added them. */
  adds?: string[];
}

/** Replaces parts of a file. */
export interface EditChange extends ChangeBase {
  kind: 'edit';
  edits: Edit[];
}

/** The lines of a new file to which several changes may add. */
export interface Pieces {
  head: string[];
  lines: string[];
  tail: string[];
}

/** Writes the whole of a file: a new one, or one that Syndexa owns. */
export interface CreateChange extends ChangeBase {
  kind: 'create';
  content: string | Pieces;
}

/** Copies a file that the person named. */
export interface CopyChange extends ChangeBase {
  kind: 'copy';
  source: SourceFile;
}

/** Removes a file. */
export interface RemoveChange extends ChangeBase {
  kind: 'remove';
}

/** One change that wiring wants. Several may concern one file. */
export type Change = EditChange | CreateChange | CopyChange | RemoveChange;

export const ByHand = z
  .object({
    platform: Platform.nullable(),
    network: z.string().nullable(),
    rule: z.string().nullable().meta({ description: 'The rule whose finding this would fix, if any.' }),
    what: z.string(),
    why: z.string(),
    where: z.string().nullable().meta({ description: 'The file or command for the step.' }),
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
    source: SourceFile.nullable().default(null),
    remove: z.boolean().default(false).meta({ description: 'Whether the file is removed.' }),
    adds: z.array(z.string()).default([]).meta({
      description: 'What the edits add that other networks may need too. Unwiring takes this list.',
    }),
  })
  .meta({ description: 'All edits of one file.' });
export type FileEdit = z.infer<typeof FileEdit>;

/** Which part of a wiring is wanted; everything when it says nothing. */
export const WiringChoice = z
  .object({
    rules: z.array(z.string().max(100)).max(200).default([]),
    networks: z.array(z.string().max(100)).max(100).default([]),
    variants: z.array(z.string().max(200)).max(500).default([]),
    groups: z
      .array(z.string().max(200))
      .max(500)
      .default([])
      .meta({ description: 'IDs of groups, from an earlier response.' }),
  })
  .meta({ description: 'Narrows a wiring to some rules, networks, variants or groups.' });
export type WiringChoice = z.infer<typeof WiringChoice>;

/** What wiring does only when it is asked to. */
export const WiringExtras = z.object({
  levels: z.boolean().default(false).meta({ description: 'Raise SDK levels that are too low.' }),
  callSites: z.boolean().default(false).meta({
    description: 'Replace IDs in code, which the roster knows, by references to the placebook.',
  }),
  binaries: z
    .array(SourceFile)
    .max(50)
    .default([])
    .meta({ description: 'Library files that the caller has.' }),
  companions: z
    .array(SourceFile.extend({ content: z.string().max(2_000_000) }))
    .max(50)
    .default([])
    .meta({ description: 'Companion files that the caller has, with their content.' }),
});
export type WiringExtras = z.infer<typeof WiringExtras>;
export const noExtras: WiringExtras = { levels: false, callSites: false, binaries: [], companions: [] };

export const WiringGroup = z
  .object({
    id: z.string().meta({ description: 'Platform, network (or all) and topic, joined by slashes.' }),
    platform: Platform,
    network: z.string().nullable(),
    topic: Topic,
    label: z.string(),
    rules: z.array(z.string()).meta({ description: 'The rules whose findings it fixes.' }),
    paths: z.array(z.string()),
    patch: z.string().meta({ description: 'Its own edits as a unified diff.' }),
  })
  .meta({ description: 'Edits that belong together and can be chosen separately.' });
export type WiringGroup = z.infer<typeof WiringGroup>;

export const Wiring = z
  .object({
    edits: z.array(FileEdit),
    groups: z.array(WiringGroup).default([]),
    patch: z.string().meta({ description: 'The same as a unified diff that git apply takes.' }),
    byHand: z.array(ByHand),
    compared: Compared.optional(),
  })
  .meta({ title: 'Wiring', description: 'The edits that would make a tree agree with the roster.' });
export type Wiring = z.infer<typeof Wiring>;
