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
    summary: 'Creates what a title lacks at its networks, and adds the IDs to the roster.',
    body: ProvisionRequest,
    answer: ProvisionAnswer,
    progress: true,
    faults: [...partnerFaults, 'stale'],
  },
  collect: {
    ...paths.collect,
    summary: 'Fetches a network’s list of units, and adds the IDs of a title to the roster.',
    body: CollectRequest,
    answer: CollectAnswer,
    progress: true,
    faults: [...partnerFaults, 'stale'],
  },
  inventory: {
    ...paths.inventory,
    summary: 'The apps and units last fetched from a network; null if none were.',
    answer: InventoryAnswer,
  },
  listSecrets: {
    ...paths.listSecrets,
    summary: 'The secrets that the roster names, without their values.',
    answer: SecretList,
  },
  showPublisher: {
    ...paths.showPublisher,
    summary: 'The publisher; null until one is set.',
    answer: Publisher.nullable(),
    tagged: true,
  },
  setPublisher: {
    ...paths.setPublisher,
    summary: 'Sets the publisher (If-None-Match: *) or changes it (If-Match).',
    body: Publisher,
    answer: Publisher,
    versioned: true,
    tagged: true,
  },
  exportRoster: { ...paths.exportRoster, summary: 'The roster as a document.', answer: RosterDocument },
  updateRosterDocument: {
    ...paths.updateRosterDocument,
    summary: 'Updates an earlier document to the roster, with its comments kept.',
    body: z.object({ document: z.string().max(8_000_000) }),
    answer: RosterDocument,
  },
  importRoster: {
    ...paths.importRoster,
    summary: 'Imports a document; with dryRun, says what would change.',
    body: RosterImport,
    answer: RosterImported,
    faults: ['stale'],
  },
} as const satisfies Record<string, RouteSpec>;
