import * as z from 'zod';
import { ProfileAnswers } from '../../core/drafting/profile.js';
import { paths } from '../paths.js';
import {
  AddNetworkRequest,
  LintAnswer,
  LintRequest,
  NetworkDetail,
  NetworkPlan,
  NetworkRemoved,
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
    body: AddNetworkRequest,
    answer: NetworkDetail,
    created: 'always',
  },
  planNetwork: {
    ...paths.planNetwork,
    summary: 'Says what keeping a profile would change, and what on record would not fit it.',
    body: LintRequest,
    answer: NetworkPlan,
  },
  removeNetwork: {
    ...paths.removeNetwork,
    summary: 'Forgets a profile of the data folder that no title uses.',
    answer: NetworkRemoved,
    faults: ['invalid'],
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
