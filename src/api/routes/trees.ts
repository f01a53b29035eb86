import * as z from 'zod';
import { CheckReport } from '../../core/checks/model.js';
import { Survey } from '../../core/facts/model.js';
import { paths } from '../paths.js';
import {
  Applied,
  ApplyRequest,
  BlobsStored,
  BlobUpload,
  CollectPlan,
  LinkedTree,
  LinkRequest,
  SnapshotAccepted,
  SnapshotManifest,
  SourceLines,
  TreeQuestion,
  FolderListing,
  FolderQuery,
  FolderRequest,
  OpenedFolder,
  CheckQuestion,
  Undone,
  UnwireQuestion,
  WireQuestion,
  WiringAnswer,
  WriteList,
} from '../trees.js';
import { nothing, type RouteSpec } from './spec.js';

/** Source trees: what is sent of them, what they say, what is written into them. */
export const treeRoutes = {
  collectPlan: { ...paths.collectPlan, summary: 'Which files of a tree to send.', answer: CollectPlan },
  addSnapshot: {
    ...paths.addSnapshot,
    summary: 'Announces a tree by the hashes of its files.',
    body: SnapshotManifest,
    answer: SnapshotAccepted,
  },
  sendBlobs: {
    ...paths.sendBlobs,
    summary: 'Sends the missing contents.',
    body: BlobUpload,
    answer: BlobsStored,
  },
  survey: {
    ...paths.survey,
    summary: 'Surveys a snapshot.',
    body: TreeQuestion,
    answer: Survey,
    progress: true,
  },
  check: {
    ...paths.check,
    summary: 'Checks a snapshot; as SARIF or JUnit XML when the Accept header names it.',
    body: CheckQuestion,
    answer: CheckReport,
    progress: true,
    forms: {
      'application/sarif+json': 'A SARIF 2.1.0 log.',
      'application/junit+xml': 'A JUnit XML report.',
    },
  },
  wire: {
    ...paths.wire,
    summary: 'Plans the edits for a snapshot.',
    body: WireQuestion,
    answer: WiringAnswer,
    progress: true,
  },
  unwire: {
    ...paths.unwire,
    summary: 'Plans the edits that remove a network from a snapshot.',
    body: UnwireQuestion,
    answer: WiringAnswer,
    progress: true,
  },
  source: {
    ...paths.source,
    summary: 'Some lines of a file.',
    query: z.object({
      path: z.string().max(1000),
      line: z.coerce.number().int().min(1),
      around: z.coerce.number().int().min(0).max(50).default(4),
    }),
    answer: SourceLines,
  },
  listFolders: {
    ...paths.listFolders,
    summary: 'The folders in a folder below a root of the service, or the roots.',
    query: FolderQuery,
    answer: FolderListing,
    faults: ['not-found', 'forbidden'],
  },
  openFolder: {
    ...paths.openFolder,
    summary: 'Reads a folder below a root of the service, and watches it from then on.',
    body: FolderRequest,
    answer: OpenedFolder,
    progress: true,
  },
  listTrees: { ...paths.listTrees, summary: 'The linked trees.', answer: z.array(LinkedTree) },
  showTree: { ...paths.showTree, summary: 'One linked tree.', answer: LinkedTree },
  linkTree: {
    ...paths.linkTree,
    summary: 'Links a folder below one of the service’s roots.',
    body: LinkRequest,
    answer: LinkedTree,
    created: 'always',
  },
  unlinkTree: { ...paths.unlinkTree, summary: 'Unlinks a tree; its files stay.', answer: nothing },
  readTree: {
    ...paths.readTree,
    summary: 'Reads a linked tree and checks it.',
    answer: LinkedTree,
    progress: true,
  },
  applyWiring: {
    ...paths.applyWiring,
    summary: 'Writes a wiring into a linked tree.',
    body: ApplyRequest,
    answer: Applied,
    faults: ['file-changed', 'invalid'],
  },
  listWrites: {
    ...paths.listWrites,
    summary: 'The writes into a linked tree that can be undone, latest first.',
    answer: WriteList,
  },
  undoWrite: {
    ...paths.undoWrite,
    summary: 'Undoes the last write into a linked tree.',
    answer: Undone,
    faults: ['file-changed'],
  },
} as const satisfies Record<string, RouteSpec>;
