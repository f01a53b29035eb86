import { writeRoster } from '../../core/roster/document.js';
import { writerOf } from '../context.js';
import { importRoster } from '../import-roster.js';
import type { Handlers } from '../route.js';

/** The roster as a document. */
export const rosterDocumentHandlers = {
  exportRoster: (_call, { roster }) => ({
    revision: roster.revision(),
    document: writeRoster(roster.roster()),
  }),
  updateRosterDocument: ({ body }, { roster }) => ({
    revision: roster.revision(),
    document: writeRoster(roster.roster(), body.document),
  }),
  importRoster: ({ body, request, signal }, service) =>
    importRoster(service, body, { writer: writerOf(service, request), signal }),
} satisfies Partial<Handlers>;
