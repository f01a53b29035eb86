import * as z from 'zod';
import { TitleDraft } from '../core/adopting/model.js';
import { Board } from '../core/board/board.js';
import { ProfileAnswers } from '../core/drafting/profile.js';
import { CheckReport } from '../core/checks/model.js';
import { Placement, Publisher } from '../core/roster/model.js';
import { Survey } from '../core/facts/model.js';
import {
  AppAdsComparison,
  AppAdsLint,
  AppAdsMerge,
  AppAdsNeeds,
  AppAdsQuestion,
  AppAdsText,
} from './app-ads.js';
import {
  CollectAnswer,
  CollectRequest,
  InventoryAnswer,
  ProvisionAnswer,
  ProvisionRequest,
  SecretList,
} from './inventory.js';
import {
  AttributionComparison,
  AttributionLint,
  AttributionMerge,
  AttributionMergeRequest,
  AttributionNeeds,
  AttributionQuestion,
  AttributionText,
} from './attribution.js';
import { paths } from './paths.js';
import {
  LintAnswer,
  LintRequest,
  NetworkDetail,
  NetworkSummary,
  ProfileDraft,
  ProfileTrial,
  RuleSummary,
  TreeDraftRequest,
} from './networks.js';
import { Session, type Role } from './roles.js';
import { Steps, StoreListing, TickWrite } from './steps.js';
import {
  HistoryEntry,
  IdWrite,
  NewTitle,
  DraftRequest,
  TakeDraft,
  PlacementRecord,
  RosterDocument,
  RosterImport,
  RosterImported,
  TitleHead,
  TitleRecord,
  TitleSummary,
} from './titles.js';
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
  AcceptanceList,
  FolderRequest,
  OpenedFolder,
  AcceptRequest,
  CheckQuestion,
  Undone,
  UnwireQuestion,
  WireQuestion,
  WiringAnswer,
  WriteList,
} from './trees.js';

/** One call of the HTTP interface. Service, client and OpenAPI document are all made from this table. */
export interface RouteSpec {
  method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  /** Below `/api/v1`; parameters in braces. */
  path: string;
  /** What the caller has to be; null for calls that find out who is calling. */
  role: Role | null;
  summary: string;
  query?: z.ZodObject;
  body?: z.ZodType;
  answer: z.ZodType;
  /** Writes that must name the version they change, in If-Match. */
  versioned?: boolean;
  /** Progress may be asked for as server-sent events. */
  progress?: boolean;
}

const nothing = z.object({});

export const routes = {
  session: {
    ...paths.session,
    summary: 'Who the service takes the caller for.',
    answer: Session,
  },
  signIn: {
    ...paths.signIn,
    summary: 'Opens a session for a token, as a cookie.',
    body: z.strictObject({ token: z.string().min(1).max(200) }),
    answer: Session,
  },
  signOut: { ...paths.signOut, summary: 'Ends the session.', answer: nothing },
  listTitles: { ...paths.listTitles, summary: 'All titles.', answer: z.array(TitleSummary) },
  addTitle: { ...paths.addTitle, summary: 'Adds a title.', body: NewTitle, answer: TitleRecord },
  draftTitle: {
    ...paths.draftTitle,
    summary: 'Drafts a title from what snapshots of its trees carry; nothing is kept.',
    body: DraftRequest,
    answer: TitleDraft,
  },
  takeDraft: {
    ...paths.takeDraft,
    summary: 'Adds the titles of a document to the roster; those that are there already are refused.',
    body: TakeDraft,
    answer: z.array(TitleRecord),
  },
  showTitle: { ...paths.showTitle, summary: 'One title, whole.', answer: TitleRecord },
  changeTitle: {
    ...paths.changeTitle,
    summary: 'Changes name, audience, stages or editions.',
    body: TitleHead,
    answer: TitleRecord,
    versioned: true,
  },
  removeTitle: { ...paths.removeTitle, summary: 'Takes a title out.', answer: nothing, versioned: true },
  putPlacement: {
    ...paths.putPlacement,
    summary: 'Adds a placement (If-None-Match: *) or changes one (If-Match).',
    body: Placement,
    answer: PlacementRecord,
    versioned: true,
  },
  removePlacement: {
    ...paths.removePlacement,
    summary: 'Takes a placement out.',
    answer: nothing,
    versioned: true,
  },
  setId: {
    ...paths.setId,
    summary: 'Sets an ID, or takes it out. If-Match names the title’s version.',
    body: IdWrite,
    answer: TitleRecord,
    versioned: true,
  },
  titleHistory: {
    ...paths.titleHistory,
    summary: 'What changed, the latest first.',
    query: z.object({ limit: z.coerce.number().int().min(1).max(1000).default(100) }),
    answer: z.array(HistoryEntry),
  },
  board: { ...paths.board, summary: 'The board of a title.', answer: Board },
  steps: {
    ...paths.steps,
    summary: 'The ordered steps of a title, each with its state and evidence.',
    answer: Steps,
  },
  tick: {
    ...paths.tick,
    summary: 'Says that a step is done which cannot be seen from here, or takes that back.',
    body: TickWrite,
    answer: Steps,
  },
  listAccepted: {
    ...paths.listAccepted,
    summary: 'Lists the findings of a title that were accepted.',
    answer: AcceptanceList,
  },
  accept: {
    ...paths.accept,
    summary: 'Accepts a finding of the last readings of a title, with a reason and a date.',
    body: AcceptRequest,
    answer: AcceptanceList,
  },
  withdraw: {
    ...paths.withdraw,
    summary: 'Takes an acceptance back.',
    answer: AcceptanceList,
  },
  lookUp: {
    ...paths.lookUp,
    summary: 'Looks the editions of a title up in the store.',
    answer: z.array(StoreListing),
  },
  provision: {
    ...paths.provision,
    summary: 'Creates at the networks what a title lacks there, and takes the IDs into the roster.',
    body: ProvisionRequest,
    answer: ProvisionAnswer,
    progress: true,
  },
  collect: {
    ...paths.collect,
    summary: 'Brings a network’s list of units in, and takes the IDs that belong to a title.',
    body: CollectRequest,
    answer: CollectAnswer,
    progress: true,
  },
  inventory: {
    ...paths.inventory,
    summary: 'What was last read of a network’s apps and units; null when nothing was.',
    answer: InventoryAnswer,
  },
  listSecrets: {
    ...paths.listSecrets,
    summary: 'The secrets that the roster names, never what they are.',
    answer: SecretList,
  },
  showPublisher: { ...paths.showPublisher, summary: 'The publisher.', answer: Publisher.nullable() },
  setPublisher: {
    ...paths.setPublisher,
    summary: 'Names the publisher.',
    body: Publisher,
    answer: Publisher,
  },
  exportRoster: { ...paths.exportRoster, summary: 'The roster as a document.', answer: RosterDocument },
  updateRosterDocument: {
    ...paths.updateRosterDocument,
    summary: 'The roster written into an earlier document, its comments kept.',
    body: z.object({ document: z.string().max(8_000_000) }),
    answer: RosterDocument,
  },
  importRoster: {
    ...paths.importRoster,
    summary: 'Takes a document in; with dryRun, says what would change.',
    body: RosterImport,
    answer: RosterImported,
  },
  listNetworks: { ...paths.listNetworks, summary: 'All network profiles.', answer: z.array(NetworkSummary) },
  showNetwork: { ...paths.showNetwork, summary: 'One network profile.', answer: NetworkDetail },
  lintNetwork: { ...paths.lintNetwork, summary: 'Checks a profile.', body: LintRequest, answer: LintAnswer },
  addNetwork: {
    ...paths.addNetwork,
    summary: 'Keeps a profile in the data folder, so that every call knows its network.',
    body: LintRequest,
    answer: NetworkDetail,
  },
  draftNetwork: {
    ...paths.draftNetwork,
    summary: 'Drafts a profile from answers.',
    body: ProfileAnswers,
    answer: ProfileDraft,
  },
  listRules: { ...paths.listRules, summary: 'All rules.', answer: z.array(RuleSummary) },
  appAdsNeeds: {
    ...paths.appAdsNeeds,
    summary: 'The app-ads.txt that the roster needs.',
    answer: AppAdsNeeds,
  },
  lintAppAds: {
    ...paths.lintAppAds,
    summary: 'Checks an app-ads.txt file.',
    body: AppAdsText,
    answer: AppAdsLint,
  },
  compareAppAds: {
    ...paths.compareAppAds,
    summary: 'Holds a file against what is needed.',
    body: AppAdsQuestion,
    answer: AppAdsComparison,
  },
  mergeAppAds: {
    ...paths.mergeAppAds,
    summary: 'Brings what is missing into a file.',
    body: AppAdsText,
    answer: AppAdsMerge,
  },
  attributionNeeds: {
    ...paths.attributionNeeds,
    summary: 'The SKAdNetwork identifiers that the roster needs.',
    answer: AttributionNeeds,
  },
  lintAttribution: {
    ...paths.lintAttribution,
    summary: 'Checks a published list of SKAdNetwork identifiers.',
    body: AttributionText,
    answer: AttributionLint,
  },
  mergeAttribution: {
    ...paths.mergeAttribution,
    summary: 'Brings what is needed, and what further lists name, into a list.',
    body: AttributionMergeRequest,
    answer: AttributionMerge,
  },
  compareAttribution: {
    ...paths.compareAttribution,
    summary: 'Holds the attribution lists of a tree against what is asked for.',
    body: AttributionQuestion,
    answer: AttributionComparison,
  },
  collectPlan: { ...paths.collectPlan, summary: 'Which files of a tree to send.', answer: CollectPlan },
  addSnapshot: {
    ...paths.addSnapshot,
    summary: 'Announces a tree by the hashes of its files.',
    body: SnapshotManifest,
    answer: SnapshotAccepted,
  },
  sendBlobs: {
    ...paths.sendBlobs,
    summary: 'Sends the contents that were missing.',
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
    summary: 'Checks a snapshot; as SARIF or JUnit XML when the Accept header asks for it.',
    body: CheckQuestion,
    answer: CheckReport,
  },
  wire: {
    ...paths.wire,
    summary: 'Works out the edits for a snapshot.',
    body: WireQuestion,
    answer: WiringAnswer,
  },
  unwire: {
    ...paths.unwire,
    summary: 'Works out the edits that take a network out of a snapshot.',
    body: UnwireQuestion,
    answer: WiringAnswer,
  },
  draftFromTree: {
    ...paths.draftFromTree,
    summary: 'Drafts a profile from what a tree declares and no profile claims.',
    body: TreeDraftRequest,
    answer: ProfileDraft,
  },
  tryNetwork: {
    ...paths.tryNetwork,
    summary: 'Says what a profile recognises in a snapshot.',
    body: LintRequest,
    answer: ProfileTrial,
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
  openFolder: {
    ...paths.openFolder,
    summary: 'Reads a folder below a root of the service, and follows it from then on.',
    body: FolderRequest,
    answer: OpenedFolder,
  },
  listTrees: { ...paths.listTrees, summary: 'The linked trees.', answer: z.array(LinkedTree) },
  linkTree: {
    ...paths.linkTree,
    summary: 'Links a folder below one of the service’s roots.',
    body: LinkRequest,
    answer: LinkedTree,
  },
  unlinkTree: { ...paths.unlinkTree, summary: 'Forgets a linked tree; its files stay.', answer: nothing },
  readTree: { ...paths.readTree, summary: 'Reads a linked tree and checks it.', answer: LinkedTree },
  applyWiring: {
    ...paths.applyWiring,
    summary: 'Writes a wiring into a linked tree.',
    body: ApplyRequest,
    answer: Applied,
  },
  listWrites: {
    ...paths.listWrites,
    summary: 'The writes into a linked tree that can be taken back, the latest first.',
    answer: WriteList,
  },
  undoWrite: {
    ...paths.undoWrite,
    summary: 'Takes the last write into a linked tree back.',
    answer: Undone,
  },
} as const satisfies Record<string, RouteSpec>;

export type Routes = typeof routes;
export type RouteName = keyof Routes;
/** Parsed answer of a route. */
export type AnswerOf<Name extends RouteName> = z.infer<Routes[Name]['answer']>;
/** Body of a route, as a client sends it. */
export type BodyOf<Name extends RouteName> = Routes[Name] extends { body: infer Body extends z.ZodType }
  ? z.input<Body>
  : undefined;
/** Body of a route, as the service sees it after parsing. */
export type ParsedBody<Name extends RouteName> = Routes[Name] extends { body: infer Body extends z.ZodType }
  ? z.output<Body>
  : undefined;
export type QueryOf<Name extends RouteName> = Routes[Name] extends { query: infer Query extends z.ZodType }
  ? z.input<Query>
  : undefined;
export type ParsedQuery<Name extends RouteName> = Routes[Name] extends {
  query: infer Query extends z.ZodType;
}
  ? z.output<Query>
  : undefined;
