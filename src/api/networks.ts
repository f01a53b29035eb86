import * as z from 'zod';
import { Profile } from '../core/network/model.js';
import { Severity } from '../core/checks/model.js';
import { Declared } from '../core/facts/declared.js';
import { Place } from '../core/facts/evidence.js';
import { Fact, Unresolved } from '../core/facts/model.js';
import { Platform } from '../core/words/words.js';
import { FieldFault } from './problem.js';

export const NetworkSummary = z.object({
  id: z.string(),
  name: z.string(),
  about: z.string(),
  formats: z.array(z.string()),
  platforms: z.array(z.string()),
  shipped: z.boolean(),
  usedBy: z.array(z.string()).meta({ description: 'The titles that use it.' }),
});
export type NetworkSummary = z.infer<typeof NetworkSummary>;
export const NetworkDetail = z.object({ profile: Profile, source: z.string(), shipped: z.boolean() });
export type NetworkDetail = z.infer<typeof NetworkDetail>;
export const LintRequest = z.object({ text: z.string().max(2_000_000) });
export const AddNetworkRequest = LintRequest.extend({
  despite: z
    .boolean()
    .default(false)
    .meta({ description: 'Whether to add it even if IDs in the roster do not match its patterns.' }),
});

export const NetworkPlan = z
  .object({
    id: z.string(),
    name: z.string(),
    replaces: z.enum(['nothing', 'shipped', 'own']).meta({
      description: 'Which profile it would replace: none, a built-in one, or one in the data folder.',
    }),
    patch: z.string().meta({ description: 'The differences from the profile that it would replace.' }),
    misfits: z
      .array(
        z.object({
          title: z.string(),
          field: z.string(),
          message: z.string(),
          fix: z.string().optional(),
        }),
      )
      .meta({ description: 'The IDs in the roster that would not match it.' }),
  })
  .meta({ title: 'Network plan', description: 'What adding a profile would change.' });
export type NetworkPlan = z.infer<typeof NetworkPlan>;

export const NetworkRemoved = z.object({
  restored: z.boolean().meta({ description: 'Whether the built-in profile of this ID is in use again.' }),
});

export type LintAnswer = z.infer<typeof LintAnswer>;
export const LintAnswer = z.object({
  ok: z.boolean(),
  id: z.string().nullable(),
  problems: z.array(FieldFault),
  needles: z.array(z.string()).meta({ description: 'Texts that identify files which may contain its IDs.' }),
});
export const RuleSummary = z.object({
  id: z.string(),
  severity: Severity,
  ifShipped: z.string(),
  mend: z.string().meta({ description: 'How to fix it by hand.' }),
  byWiring: z.string().optional().meta({ description: 'How wiring fixes it, if it does.' }),
  otherMends: z
    .record(z.string(), z.string())
    .optional()
    .meta({ description: 'Other ways to fix it, if the usual one does not apply.' }),
  messages: z.record(z.string(), z.string()),
  isAbsence: z.boolean().optional().meta({
    description: 'Whether it reports nothing while a file that may contain the missing part is broken.',
  }),
  mayBeInScript: z
    .boolean()
    .optional()
    .meta({ description: 'Whether it also reports nothing while a build script cannot be read.' }),
  needsTitle: z.boolean(),
});

export const ProfileDraft = z
  .object({
    id: z.string(),
    text: z.string().meta({ description: 'The profile as YAML, with comments.' }),
    problems: z.array(FieldFault),
    stem: z
      .string()
      .nullable()
      .default(null)
      .meta({ description: 'The vendor that it was drafted for; null for a draft from answers.' }),
    declared: z
      .array(Declared)
      .default([])
      .meta({ description: 'The parts of the tree that it was drafted from.' }),
    others: z
      .array(z.object({ stem: z.string(), declared: z.array(Declared) }))
      .meta({ description: 'What else the tree declares that no profile explains, grouped by vendor.' }),
  })
  .meta({ title: 'Profile draft' });
export type ProfileDraft = z.infer<typeof ProfileDraft>;

export const TreeDraftRequest = z.object({
  only: z
    .string()
    .max(100)
    .optional()
    .meta({ description: 'The vendor to draft for; default: the one with the most declarations.' }),
});

export const ProfileTrial = z
  .object({
    id: z.string().nullable(),
    problems: z.array(FieldFault),
    stacks: z.array(z.object({ stack: z.string(), root: z.string() })),
    facts: z.array(Fact).meta({ description: 'What the profile recognises in the tree.' }),
    unresolved: z.array(Unresolved),
    unmet: z
      .array(
        z.object({
          platform: Platform.nullable(),
          rule: z.string().meta({ description: 'The rule that would report it.' }),
          what: z.string(),
          fix: z.string().meta({ description: 'How to fix it.' }),
          place: Place.nullable(),
        }),
      )
      .meta({ description: 'What the profile requires and the tree lacks or has differently.' }),
  })
  .meta({ title: 'Profile trial', description: 'What a profile recognises in a tree.' });
export type ProfileTrial = z.infer<typeof ProfileTrial>;
