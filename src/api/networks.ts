import { z } from 'zod';
import { Profile } from '../core/network/model.js';
import { Severity } from '../core/checks/model.js';
import { FieldFault } from './problem.js';

export const NetworkSummary = z.object({
  id: z.string(),
  name: z.string(),
  about: z.string(),
  formats: z.array(z.string()),
  platforms: z.array(z.string()),
  shipped: z.boolean(),
});
export type NetworkSummary = z.infer<typeof NetworkSummary>;
export const NetworkDetail = z.object({ profile: Profile, source: z.string(), shipped: z.boolean() });
export type NetworkDetail = z.infer<typeof NetworkDetail>;
export const LintRequest = z.object({ text: z.string().max(2_000_000) });
export const LintAnswer = z.object({
  ok: z.boolean(),
  id: z.string().nullable(),
  problems: z.array(FieldFault),
});
export const RuleSummary = z.object({
  id: z.string(),
  severity: Severity,
  ifShipped: z.string(),
  mend: z.string(),
  messages: z.record(z.string(), z.string()),
  needsTitle: z.boolean(),
});
