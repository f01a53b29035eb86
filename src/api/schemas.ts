import { IdTrace } from '../core/id-trace/trace.js';
import { SearchAnswer } from './overview.js';
import * as z from 'zod';
import { schemaDocument } from './components.js';
import { TitleDraft } from '../core/adopting/model.js';
import { Board, RecordState } from '../core/board/model.js';
import { CheckReport } from '../core/checks/model.js';
import { Profile } from '../core/network/model.js';
import { Platform, Stage } from '../core/words/words.js';
import { Placement, Publisher, Roster } from '../core/roster/model.js';
import { Explanation } from '../core/facts/explain.js';
import { Survey } from '../core/facts/model.js';
import { RehearsalReport } from '../core/rehearsal/report.js';
import { Scenario } from '../core/rehearsal/scenario/model.js';
import { ScenarioList } from './rehearsals.js';
import { AppAdsLint, AppAdsNeeds, AppAdsVerified } from './app-ads.js';
import { AttributionComparison, AttributionLint, AttributionNeeds } from './attribution.js';
import { CollectAnswer, ProvisionAnswer, SecretList } from './inventory.js';
import {
  LintAnswer,
  NetworkPlan,
  NetworkRemoved,
  NetworkSummary,
  ProfileDraft,
  ProfileTrial,
} from './networks.js';
import { Steps, StoreListing } from './steps.js';
import { Problem } from './problem.js';
import { Role, TokenEntry } from './roles.js';
import {
  HistoryEntry,
  PlacementRecord,
  RosterDocument,
  RosterImported,
  TitleRecord,
  TitleSummary,
} from './titles.js';
import {
  CompareAnswer,
  FetchAnswer,
  FiguresAnswer,
  ImportList,
  ImportSummary,
  RatesAnswer,
  Release,
  SilentAnswer,
} from './tally.js';
import { TagLint, TagPlayPrinted, TagReport } from './tags.js';
import { AcceptanceList, LinkedTree, WiringAnswer, PlacebookState, WriteEntry, WriteList } from './trees.js';

/** Shapes that only commands print, put together from several answers or told of one. */
const IdList = z.array(
  z.object({
    placement: z.string().nullable(),
    network: z.string(),
    platform: Platform,
    stage: Stage,
    id: z.string().nullable(),
    record: RecordState,
  }),
);
const LintResults = z.array(LintAnswer.extend({ file: z.string() }));
const TokenMade = z.object({
  name: z.string(),
  role: Role,
  token: z.string().meta({ description: 'It is shown only once.' }),
});
const Removed = z.object({ removed: z.string() });
const Exported = z.object({
  revision: z.number(),
  document: z.string().optional(),
  file: z.string().optional(),
  profiles: RosterDocument.shape.profiles.optional(),
  profileFiles: z.array(z.string()).optional().meta({
    description: 'The files beside the document with profiles that are not built in.',
  }),
});
const AppAdsMerged = z.object({ file: z.string(), patch: z.string(), written: z.boolean() });

const PartnerAccounts = z.array(
  z.object({
    network: z.string(),
    credential: z.string(),
    secret: z.string(),
    account: z.string().nullable(),
  }),
);
const CrawlAnswer = z.object({
  apps: z.array(
    z.object({
      app: z.string(),
      identifier: z.string(),
      platform: Platform,
      state: z.enum(['authorised', 'not-named', 'no-file', 'no-site', 'not-listed']),
      detail: z.string(),
    }),
  ),
});

interface Published {
  type: z.ZodType;
  /** Documents that people write are described as they are written. */
  io: 'input' | 'output';
  /** Where the shape is met. */
  from: string;
}

/** What documents and answers look like, by name. */
export const published: Record<string, Published> = {
  roster: { type: Roster, io: 'input', from: 'the roster document (`syndexa roster schema`)' },
  profile: {
    type: Profile,
    io: 'input',
    from: 'a network profile (`syndexa network schema`, `syndexa network show --json`)',
  },
  survey: { type: Survey, io: 'output', from: '`syndexa survey DIR --json`' },
  explanation: {
    type: z.array(Explanation),
    io: 'output',
    from: '`syndexa survey DIR --explain QUESTION --json`',
  },
  check: { type: CheckReport, io: 'output', from: '`syndexa check DIR --json`' },
  wire: {
    type: WiringAnswer,
    io: 'output',
    from: '`syndexa wire DIR --json`, `syndexa unwire NETWORK DIR --json`',
  },
  writes: { type: WriteList, io: 'output', from: '`syndexa undo DIR --list --json`' },
  write: { type: WriteEntry, io: 'output', from: '`syndexa undo DIR --json`' },
  'placebook-state': {
    type: PlacebookState,
    io: 'output',
    from: '`syndexa placebook DIR --check --json`',
  },
  board: { type: Board, io: 'output', from: '`syndexa board TITLE --json`' },
  title: {
    type: TitleRecord,
    io: 'output',
    from: '`syndexa title show|add|set --json`, `syndexa title history --revert --json`, `syndexa id set|unset --json`',
  },
  titles: { type: z.array(TitleSummary), io: 'output', from: '`syndexa title list --json`' },
  history: { type: z.array(HistoryEntry), io: 'output', from: '`syndexa title history --json`' },
  'linked-tree': { type: LinkedTree, io: 'output', from: '`syndexa title link --json`' },
  placement: { type: PlacementRecord, io: 'output', from: '`syndexa placement add|set --json`' },
  placements: {
    type: z.record(z.string(), Placement),
    io: 'output',
    from: '`syndexa placement list --json`',
  },
  ids: { type: IdList, io: 'output', from: '`syndexa id list --json`' },
  'id-trace': { type: IdTrace, io: 'output', from: '`syndexa id trace --json`' },
  find: { type: SearchAnswer, io: 'output', from: '`syndexa find --json`' },
  removed: {
    type: Removed,
    io: 'output',
    from: '`syndexa title remove --json`, `syndexa placement remove --json`',
  },
  import: { type: RosterImported, io: 'output', from: '`syndexa roster import --json`' },
  export: { type: Exported, io: 'output', from: '`syndexa roster export --json`' },
  networks: { type: z.array(NetworkSummary), io: 'output', from: '`syndexa network list --json`' },
  lint: {
    type: LintResults,
    io: 'output',
    from: '`syndexa network lint --json`, `syndexa network test --json` for a profile with faults',
  },
  appads: { type: AppAdsNeeds, io: 'output', from: '`syndexa appads show --json`' },
  'appads-lint': { type: AppAdsLint, io: 'output', from: '`syndexa appads lint --json`' },
  'appads-merge': { type: AppAdsMerged, io: 'output', from: '`syndexa appads merge --json`' },
  'appads-verify': { type: AppAdsVerified, io: 'output', from: '`syndexa appads verify --json`' },
  draft: { type: ProfileDraft, io: 'output', from: '`syndexa network new --json`' },
  trial: { type: ProfileTrial, io: 'output', from: '`syndexa network test --json`' },
  'network-added': { type: Profile, io: 'output', from: '`syndexa network add --json`' },
  'network-plan': {
    type: NetworkPlan,
    io: 'output',
    from: '`syndexa network add --json`, where IDs on record do not fit',
  },
  'network-removed': { type: NetworkRemoved, io: 'output', from: '`syndexa network remove --json`' },
  publisher: {
    type: Publisher.nullable(),
    io: 'output',
    from: '`syndexa publisher show|set --json`',
  },
  accepted: { type: AcceptanceList, io: 'output', from: '`syndexa accept --json`' },
  'title-draft': { type: TitleDraft, io: 'output', from: '`syndexa title adopt --json`' },
  'titles-taken': { type: z.array(TitleRecord), io: 'output', from: '`syndexa title take --json`' },
  token: { type: TokenMade, io: 'output', from: '`syndexa token add --json`' },
  tokens: { type: z.array(TokenEntry), io: 'output', from: '`syndexa token list --json`' },
  secrets: { type: SecretList, io: 'output', from: '`syndexa secret list --json`' },
  provision: { type: ProvisionAnswer, io: 'output', from: '`syndexa provision --json`' },
  collect: { type: CollectAnswer, io: 'output', from: '`syndexa id collect --json`' },
  steps: { type: Steps, io: 'output', from: '`syndexa steps --json`' },
  listings: { type: z.array(StoreListing), io: 'output', from: '`syndexa title look-up --json`' },
  tag: { type: TagReport, io: 'output', from: '`syndexa tag show --json`' },
  'tag-lint': { type: TagLint, io: 'output', from: '`syndexa tag lint --json`' },
  'tag-play': { type: TagPlayPrinted, io: 'output', from: '`syndexa tag play --json`' },
  scenario: { type: Scenario, io: 'input', from: 'a scenario of `syndexa rehearse`' },
  scenarios: { type: ScenarioList, io: 'output', from: '`syndexa rehearse --scenarios --json`' },
  rehearsal: { type: RehearsalReport, io: 'output', from: '`syndexa rehearse DIR --json`' },
  'tally-imported': {
    type: z.array(ImportSummary),
    io: 'output',
    from: '`syndexa tally import FILE --json`',
  },
  'tally-fetched': { type: FetchAnswer, io: 'output', from: '`syndexa tally fetch --json`' },
  'tally-imports': { type: ImportList, io: 'output', from: '`syndexa tally imports --json`' },
  'tally-releases': { type: z.array(Release), io: 'output', from: '`syndexa tally release TITLE --json`' },
  'tally-rates': { type: RatesAnswer, io: 'output', from: '`syndexa tally rates FILE --json`' },
  'tally-figures': { type: FiguresAnswer, io: 'output', from: '`syndexa tally show --json`' },
  'tally-comparison': { type: CompareAnswer, io: 'output', from: '`syndexa tally compare --json`' },
  'tally-silence': { type: SilentAnswer, io: 'output', from: '`syndexa tally silent --json`' },
  attribution: { type: AttributionNeeds, io: 'output', from: '`syndexa attribution show --json`' },
  'attribution-lint': { type: AttributionLint, io: 'output', from: '`syndexa attribution lint --json`' },
  'attribution-merge': { type: AppAdsMerged, io: 'output', from: '`syndexa attribution merge --json`' },
  'attribution-compare': {
    type: AttributionComparison,
    io: 'output',
    from: '`syndexa attribution compare --json`',
  },
  'partner-accounts': {
    type: PartnerAccounts,
    io: 'output',
    from: '`syndexa partner open-accounts --json`',
  },
  'partner-crawl': { type: CrawlAnswer, io: 'output', from: '`syndexa partner crawl --json`' },
  problem: { type: Problem, io: 'output', from: 'every error of the HTTP interface' },
};

let made: Record<string, Record<string, unknown>> | undefined;

/** The JSON Schemas (draft 2020-12) of everything that is published. */
export function schemaDocuments(): Record<string, Record<string, unknown>> {
  made ??= Object.fromEntries(
    Object.entries(published).map(([name, { type, io }]) => [name, schemaDocument(type, io)]),
  );
  return made;
}
