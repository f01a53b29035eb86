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
    summary: 'Adds a profile to the data folder, so that every call knows its network.',
    body: AddNetworkRequest,
    answer: NetworkDetail,
    created: 'always',
  },
  planNetwork: {
    ...paths.planNetwork,
    summary: 'Previews what adding a profile would change, and which IDs would not match it.',
    body: LintRequest,
    answer: NetworkPlan,
  },
  removeNetwork: {
    ...paths.removeNetwork,
    summary: 'Removes a profile that no title uses from the data folder.',
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
    summary: 'Drafts a profile from what a tree declares and no profile explains.',
    body: TreeDraftRequest,
    answer: ProfileDraft,
  },
  tryNetwork: {
    ...paths.tryNetwork,
    summary: 'Tries what a profile recognises in a snapshot.',
    body: LintRequest,
    answer: ProfileTrial,
  },
} as const satisfies Record<string, RouteSpec>;
