import * as z from 'zod';
import type { Profile } from '../network/model.js';
import { Compared, Platform } from '../words/words.js';
import { severityNames } from '../words/names.js';
import type { InventoryReading } from '../inventory/model.js';
import type { Recogniser } from '../network/recognise.js';
import type { Title } from '../roster/model.js';
import { ChainStep, Place } from '../facts/evidence.js';
import { type Survey } from '../facts/model.js';
import type { TallyHistory } from '../tally/history.js';
import { TextEdit } from '../edits/model.js';

export const Severity = z.enum(severityNames);
export type Severity = z.infer<typeof Severity>;
export const severities = Severity.options;

export const Finding = z
  .object({
    rule: z.string(),
    severity: Severity,
    message: z.string(),
    mend: z.string().meta({ description: 'What to do about it.' }),
    platform: Platform.nullable(),
    module: z.string().nullable(),
    variants: z.array(z.string()),
    network: z.string().nullable(),
    placement: z.string().nullable(),
    place: Place.nullable(),
    chain: z.array(ChainStep),
    fingerprint: z
      .string()
      .meta({ description: 'Identifies the fault. It stays the same when other parts of the file change.' }),
    fix: z
      .object({
        edits: z.array(TextEdit.extend({ path: z.string() })),
        content: z.array(z.object({ path: z.string(), text: z.string() })),
      })
      .optional()
      .meta({ description: 'The edits that wiring would make for it.' }),
    accepted: z
      .object({
        reason: z.string(),
        until: z.string(),
        who: z.string(),
        ended: z
          .boolean()
          .meta({ description: 'Whether the date is past, so that the finding counts again.' }),
      })
      .optional()
      .meta({ description: 'Set when somebody accepted the finding.' }),
  })
  .meta({ description: 'Where a survey and the roster disagree, or a rule is broken.' });
export type Finding = z.infer<typeof Finding>;

export const CheckReport = z
  .object({
    title: z.string().nullable(),
    summary: z.object({
      blocker: z.number(),
      warning: z.number(),
      note: z.number(),
      accepted: z
        .number()
        .meta({ description: 'Findings that were accepted; they are counted nowhere else.' }),
    }),
    compared: Compared.optional(),
    snapshot: z
      .string()
      .optional()
      .meta({ description: 'The snapshot that was checked; later checks may name it with --against.' }),
    against: z
      .object({ snapshot: z.string(), known: z.number() })
      .optional()
      .meta({ description: 'The snapshot compared with, and how many findings it has already.' }),
    findings: z.array(Finding),
    leftOut: z.number().optional().meta({
      description: 'How many findings are not listed, because there are too many; all are counted.',
    }),
  })
  .meta({ title: 'Check', description: 'What is wrong with a tree.' });
export type CheckReport = z.infer<typeof CheckReport>;

/** What a rule is, apart from its code. */
export interface RuleMeta<Message extends string = string> {
  /** `group/what`; never used again for something else once published. */
  id: string;
  severity: Severity;
  /** One sentence: what happens if it ships. */
  ifShipped: string;
  /** How a person fixes it by hand; `{name}` is filled in as in messages. */
  mend: string;
  /** What wiring does about it, where it does: said instead of `mend` when wiring has edits for the finding. */
  byWiring?: string;
  /** Further ways to fix it, where the usual one does not apply; reports choose by name. */
  otherMends?: Record<string, string>;
  /** Texts by message ID, with `{name}` for what the finding fills in; each ends with a full stop. */
  messages: Record<Message, string>;
  /** Whether it reports that something is not there: silent where a file that may hold it is broken. */
  isAbsence?: true;
  /** Whether what is missing may be in a build script: silent where one cannot be read, too. */
  mayBeInScript?: true;
  /** Whether the rule compares with a title; such rules are silent without one. */
  needsTitle: boolean;
}

/** What a rule reports. */
export interface Report<Message extends string = string> {
  message: Message;
  /** Values for the message. They identify the finding, apart from the sentences `why`, `reason` and `fix`. */
  data?: Record<string, string>;
  /** Further values for the message that do not identify the finding: a time, a count, a text for people. */
  changing?: Record<string, string>;
  /** Name of one of the rule's other fixes. */
  mend?: string;
  platform?: Platform | null;
  module?: string | null;
  variants?: readonly string[];
  network?: string | null;
  placement?: string | null;
  place?: Place | null;
  chain?: readonly ChainStep[];
}

/** What rules look at. They change nothing of it. */
export interface CheckContext {
  survey: Survey;
  profiles: readonly Profile[];
  recogniser: Recogniser;
  title: Title | null;
  titleId: string | null;
  /** What was last read of the networks' lists, as far as it concerns the title. */
  inventories: readonly InventoryReading[];
  /** Daily numbers of the title; undefined where there are none. */
  tally?: TallyHistory | undefined;
  /** The time, in ISO 8601: the core has no clock. */
  now: string;
}

export interface Rule<Message extends string = string> {
  meta: RuleMeta<Message>;
  run(context: CheckContext): Iterable<Report<Message>>;
}

/** Keeps a rule's message IDs and its reports in step. */
export function defineRule<Message extends string>(rule: Rule<Message>): Rule {
  return rule;
}
