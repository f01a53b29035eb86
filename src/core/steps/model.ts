import * as z from 'zod';
import type { Reading } from '../board/model.js';
import type { Finding } from '../checks/model.js';
import type { InventoryApp, InventoryReading } from '../inventory/model.js';
import type { Profile } from '../network/model.js';
import { Platform } from '../words/words.js';
import type { ExpectedId } from '../roster/expected.js';
import type { Publisher, Title } from '../roster/model.js';
import type { AppAdsComparison } from '../roster/app-ads-needs.js';
import { Place } from '../facts/evidence.js';
import type { TallyHistory } from '../tally/history.js';
import type { LastRehearsal } from '../rehearsal/report.js';

export const StepState = z.enum(['done', 'to-do', 'blocked', 'cannot-tell']);
export type StepState = z.infer<typeof StepState>;

export const Evidence = z.object({ what: z.string(), place: Place.nullable() });
export type Evidence = z.infer<typeof Evidence>;

export const Tick = z
  .object({ who: z.string(), at: z.string(), note: z.string().nullable() })
  .meta({ description: 'Said by a person, where nothing can be seen from here.' });
export type Tick = z.infer<typeof Tick>;

export const Step = z
  .object({
    step: z.string(),
    name: z.string(),
    platform: Platform,
    network: z.string().nullable().meta({ description: 'Null for steps of the edition as a whole.' }),
    networkName: z.string().nullable(),
    state: StepState,
    why: z.string(),
    blockedBy: z.array(z.string()),
    evidence: z.array(Evidence),
    command: z.string().nullable().meta({ description: 'The one command that does it.' }),
    page: z.string().nullable().meta({ description: 'The page on which a person does it.' }),
    tickable: z.boolean().meta({ description: 'Whether a person may say that it is done.' }),
    tick: Tick.nullable(),
  })
  .meta({ description: 'One step on the way of an edition and a network into the store.' });
export type Step = z.infer<typeof Step>;

export const Steps = z
  .object({ title: z.string(), name: z.string(), steps: z.array(Step) })
  .meta({ title: 'Steps', description: 'The ordered steps of a title, each with its state and evidence.' });
export type Steps = z.infer<typeof Steps>;

/** What the store lists under an identifier, as last looked up. */
export const StoreListing = z.object({
  platform: Platform,
  identifier: z.string(),
  listed: z.boolean(),
  name: z.string().nullable(),
  site: z.string().nullable(),
  lookedAt: z.string(),
});
export type StoreListing = z.infer<typeof StoreListing>;

/** What a step looks at: one edition, one network. */
export interface StepContext {
  titleId: string;
  title: Title;
  publisher: Publisher | null;
  platform: Platform;
  identifier: string;
  profile: Profile;
  expected: readonly ExpectedId[];
  /** What was last read of the edition's tree. */
  reading: Reading | undefined;
  /** What was last read of the network's list. */
  inventory: InventoryReading | undefined;
  /** The edition's app at the network. */
  app: InventoryApp | undefined;
  /** The credential that opens the network's list: by which reference, and whether anything holds it. */
  key: { reference: string; held: boolean } | undefined;
  /** What the developer site was last seen to serve, held against what is needed; undefined when never looked at. */
  appAds: { url: string; at: string; comparisons: readonly AppAdsComparison[] } | undefined;
  listing: StoreListing | undefined;
  /** What was rehearsed last of the edition. */
  rehearsal: LastRehearsal | undefined;
  /** Daily numbers of the title, and what was found in them; undefined where there are none. */
  tally: { history: TallyHistory; findings: readonly Finding[] } | undefined;
  /** Whether there is a store that can be asked. */
  canLookUp: boolean;
  now: string;
}

/** What a step sees. */
export interface Seen {
  state: 'done' | 'to-do' | 'cannot-tell';
  why: string;
  evidence?: Evidence[];
  command?: string;
  page?: string;
  /** Whether a person may have done it out of sight: on the network's pages, without a key. */
  mayBeUnseen?: true;
}

/** One kind of step. What it needs done before is declared; the order follows from that. */
export interface StepDefinition {
  id: string;
  name: string;
  /** Steps that have to be done before this one can be. */
  requires: readonly string[];
  /** One for the edition as a whole, or one per network. */
  per: 'edition' | 'network';
  /** Whether it is done only when everything that it requires is, whatever it sees itself. */
  gate?: true;
  /** Whether it applies to this network. */
  applies?(context: StepContext): boolean;
  look(context: StepContext): Seen;
}

/** The findings of the last reading by the start of their rule, of this network or of none. */
export function findingsOf(
  { reading, profile }: StepContext,
  groups: readonly string[],
  anyNetwork = false,
): Omit<Finding, 'fix'>[] {
  return (reading?.findings ?? []).filter(
    ({ rule, network }) =>
      groups.some((group) => rule === group || rule.startsWith(`${group}/`)) &&
      (anyNetwork || network === null || network === profile.id),
  );
}

/** Findings as evidence. */
export function asEvidence(findings: readonly Omit<Finding, 'fix'>[]): Evidence[] {
  return findings.map(({ message, place }) => ({ what: message, place }));
}

/** What a step says that needs a tree when none was read. */
export function unread({ titleId }: StepContext): Seen {
  return {
    state: 'cannot-tell',
    why: 'No tree of this edition was read yet.',
    command: `syndexa check DIR --title ${titleId}`,
  };
}
