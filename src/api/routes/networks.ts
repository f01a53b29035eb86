import * as z from 'zod';
import { ProfileAnswers } from '../../core/drafting/profile.js';
import { paths } from '../paths.js';
import {
  LintAnswer,
  LintRequest,
  NetworkDetail,
  NetworkSummary,
  ProfileDraft,
  ProfileTrial,
  RuleSummary,
  TreeDraftRequest,
} from '../networks.js';
import type { RouteSpec } from './spec.js';

/** Network profiles and rules. */
export const networkRoutes = {
  listNetworks: { ...paths.listNetworks, summary: 'All network profiles.', answer: z.array(NetworkSummary) },
  showNetwork: { ...paths.showNetwork, summary: 'One network profile.', answer: NetworkDetail },
  lintNetwork: { ...paths.lintNetwork, summary: 'Checks a profile.', body: LintRequest, answer: LintAnswer },
  addNetwork: {
    ...paths.addNetwork,
    summary: 'Keeps a profile in the data folder, so that every call knows its network.',
    body: LintRequest,
    answer: NetworkDetail,
    created: 'always',
  },
  draftNetwork: {
    ...paths.draftNetwork,
    summary: 'Drafts a profile from answers.',
    body: ProfileAnswers,
    answer: ProfileDraft,
  },
  listRules: { ...paths.listRules, summary: 'All rules.', answer: z.array(RuleSummary) },
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
} as const satisfies Record<string, RouteSpec>;
