import * as z from 'zod';
import { severityNames } from '../core/words/names.js';
import { Acceptance } from '../core/checks/accepted.js';
import { printableName } from '../core/text/printable.js';
import { noExtras, Wiring, WiringChoice, WiringExtras } from '../core/edits/model.js';

export const CollectPlan = z
  .object({
    rules: z.array(
      z.object({
        name: z.string().optional(),
        suffix: z.string().optional(),
        parent: z.string().optional(),
        needle: z.boolean().optional(),
      }),
    ),
    folders: z.array(z.string()),
    needles: z.array(z.string()),
    skipFolders: z.array(z.string()),
    skipBeside: z.array(z.object({ folder: z.string(), beside: z.string() })).meta({
      description: 'Folders to skip if they have a sibling whose name ends with this text.',
    }),
    maxFileBytes: z.number(),
    maxFiles: z.number(),
    maxTreeBytes: z.number(),
  })
  .meta({ title: 'Collect plan', description: 'Which files of a tree the service wants to see.' });
export type CollectPlan = z.infer<typeof CollectPlan>;

const Hash = z.string().regex(/^[0-9a-f]{64}$/);
const RelativePath = z
  .string()
  .min(1)
  .max(1000)
  .refine(
    (path) =>
      !path.startsWith('/') &&
      !path.split('/').some((part) => part === '..' || part === '.' || part === '') &&
      path === printableName(path),
    'A path below the root of the tree, with / as separator and without control characters.',
  );

export const SnapshotManifest = z.object({
  name: z.string().min(1).max(500),
  files: z.array(z.object({ path: RelativePath, hash: Hash, size: z.number().int().min(0) })).max(50_000),
  folders: z.array(RelativePath).max(50_000).default([]),
  skipped: z
    .array(z.object({ path: RelativePath, reason: z.string().max(400) }))
    .max(5_000)
    .default([]),
});
export type SnapshotManifest = z.infer<typeof SnapshotManifest>;

export const SnapshotAccepted = z.object({ id: z.string(), missing: z.array(Hash) });
export const BlobUpload = z.object({
  blobs: z.array(z.object({ hash: Hash, base64: z.string().max(24_000_000) })).max(2_000),
});
export const BlobsStored = z.object({ stored: z.number() });

export const TreeQuestion = z.object({
  title: z
    .string()
    .nullable()
    .default(null)
    .meta({ description: 'The title to compare with; if null, it is found by its identifiers.' }),
});
export const CheckQuestion = TreeQuestion.extend({
  against: z
    .string()
    .regex(/^[0-9a-f]{6,32}$/)
    .nullable()
    .default(null)
    .meta({
      description: 'An earlier snapshot, or the start of its name: only newer findings are returned.',
    }),
  failOn: z
    .enum([...severityNames, 'never'])
    .default('note')
    .meta({ description: 'JUnit XML: findings at or above this are failures, the others are skipped.' }),
});
export const WireQuestion = TreeQuestion.extend({
  choice: WiringChoice.default({ rules: [], networks: [], variants: [], groups: [] }),
  extras: WiringExtras.default(noExtras),
});
export const UnwireQuestion = TreeQuestion.extend({
  network: z.string().min(1).max(100),
  added: z.array(z.string().max(200)).max(2_000).default([]).meta({
    description: 'Additions of earlier writes that other code may need too, as listed by their edits.',
  }),
});
export const AcceptRequest = z.object({
  fingerprint: z.string().regex(/^[\w-]{4,120}$/),
  reason: z.string().trim().min(8, 'Say in a few words why it is acceptable.').max(500),
  until: z
    .string()
    .regex(/^\d{4}-\d{2}-\d{2}$/, 'A day, such as 2027-03-31.')
    .refine((day) => !Number.isNaN(Date.parse(day)), 'This day does not exist.'),
});
export const AcceptanceList = z.object({ title: z.string(), acceptances: z.array(Acceptance) });

export const WiringAnswer = Wiring.extend({
  id: z.string(),
  title: z.string(),
  snapshot: z.string(),
  network: z.string().nullable().default(null).meta({ description: 'The network that is removed, if any.' }),
});
export type WiringAnswer = z.infer<typeof WiringAnswer>;

export const StoredTree = z.object({
  id: z.string(),
  title: z.string(),
  path: z.string(),
  snapshot: z.string().nullable(),
});
export type StoredTree = z.infer<typeof StoredTree>;
export const FolderRequest = z.object({
  path: z.string().min(1).max(2000),
  needles: z.array(z.string().min(2).max(200)).max(200).default([]).meta({
    description: 'Texts: files that contain one of them are read too. A folder of this kind is not watched.',
  }),
});
export const OpenedFolder = z.object({ snapshot: z.string(), seen: z.number(), files: z.number() }).meta({
  description: 'The current content of a folder below a root; the service watches it from then on.',
});
export const LinkRequest = z.object({ title: z.string(), path: z.string().min(1).max(2000) });
export const ApplyRequest = z.object({
  wiring: z.string(),
  force: z.boolean().default(false).meta({ description: 'Also write read-only files.' }),
});
export const Applied = z.object({ written: z.array(z.string()), snapshot: z.string() });
/** A write into a tree that can be undone. */
export const WriteEntry = z
  .object({
    id: z.string(),
    at: z.string(),
    title: z.string(),
    what: z.string().meta({ description: 'What was done: wire, or unwire with its network.' }),
    files: z.array(z.object({ path: z.string(), change: z.enum(['new', 'changed', 'removed']) })),
  })
  .meta({ title: 'Write', description: 'A write into a tree that can be undone.' });
export type WriteEntry = z.infer<typeof WriteEntry>;
export const FolderQuery = z.object({
  path: z.string().max(4_000).optional().meta({ description: 'Default: the roots of the service.' }),
});
export const FolderListing = z.object({
  path: z.string().nullable().meta({ description: 'Null if the roots are listed.' }),
  parent: z.string().nullable().meta({ description: 'Null for a root.' }),
  folders: z.array(z.object({ name: z.string(), path: z.string() })),
  more: z.number().int().meta({ description: 'How many more folders exist.' }),
});
export type FolderListing = z.infer<typeof FolderListing>;

export const LinkedTree = StoredTree.extend({
  interrupted: WriteEntry.nullable().meta({
    description:
      'A write to the tree that was interrupted, so that some of its files may be written and others not.',
  }),
});
export type LinkedTree = z.infer<typeof LinkedTree>;
export const WriteList = z.array(WriteEntry);
export const PlacebookState = z
  .object({
    title: z.string(),
    current: z.boolean(),
    files: z.array(z.object({ path: z.string(), state: z.enum(['missing', 'out of date', 'in the way']) })),
  })
  .meta({ title: 'Placebook state', description: 'Whether the placebooks of a tree are current.' });
export const Undone = z.object({ undone: WriteEntry, snapshot: z.string() });
export const SourceLines = z.object({ path: z.string(), first: z.number(), lines: z.array(z.string()) });
export type SourceLines = z.infer<typeof SourceLines>;
