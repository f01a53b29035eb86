import * as z from 'zod';
import { Publisher } from '../../core/roster/model.js';
import {
  CollectAnswer,
  CollectRequest,
  InventoryAnswer,
  ProvisionAnswer,
  ProvisionRequest,
  SecretList,
} from '../inventory.js';
import { paths } from '../paths.js';
import { RosterDocument, RosterImport, RosterImported } from '../titles.js';
import { partnerFaults, type RouteSpec } from './spec.js';

/** The roster as a whole, and what goes between it and the networks. */
export const rosterRoutes = {
  provision: {
    ...paths.provision,
    summary: 'Creates at the networks what a title lacks there, and takes the IDs into the roster.',
    body: ProvisionRequest,
    answer: ProvisionAnswer,
    progress: true,
    faults: [...partnerFaults, 'stale'],
  },
  collect: {
    ...paths.collect,
    summary: 'Brings a network’s list of units in, and takes the IDs that belong to a title.',
    body: CollectRequest,
    answer: CollectAnswer,
    progress: true,
    faults: [...partnerFaults, 'stale'],
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
  showPublisher: {
    ...paths.showPublisher,
    summary: 'The publisher; null until one is named.',
    answer: Publisher.nullable(),
    tagged: true,
  },
  setPublisher: {
    ...paths.setPublisher,
    summary: 'Names the publisher (If-None-Match: *) or changes it (If-Match).',
    body: Publisher,
    answer: Publisher,
    versioned: true,
    tagged: true,
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
    faults: ['stale'],
  },
} as const satisfies Record<string, RouteSpec>;
