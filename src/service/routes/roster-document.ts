import { updateProblems, writeRoster } from '../../core/roster/document.js';
import { writerOf } from '../context.js';
import { faultsOf, ServiceError } from '../errors.js';
import { importRoster } from '../import-roster.js';
import type { Handlers } from '../route.js';
import type { Service } from '../service.js';

/** The roster as a document. */
export const rosterDocumentHandlers = {
  exportRoster: (_call, service) => documentOf(service),
  updateRosterDocument: ({ body }, service) => {
    const problems = updateProblems(body.document);
    if (problems.length > 0)
      throw new ServiceError('invalid', 'The document cannot be brought up to the record.', {
        errors: faultsOf(problems),
        fix: 'Correct it, or name another file.',
      });
    return documentOf(service, body.document);
  },
  importRoster: ({ body, request, signal }, service) =>
    importRoster(service, body, { writer: writerOf(service, request), signal }),
} satisfies Partial<Handlers>;

/** The record with all that decides what a check says of it: accepted findings, and profiles that did not ship. */
function documentOf({ roster, profiles, ...service }: Service, earlier?: string) {
  const accepted = service.accepted.all();
  const all = { ...roster.roster(), ...(Object.keys(accepted).length > 0 ? { accepted } : {}) };
  return {
    revision: roster.revision(),
    document: writeRoster(all, earlier),
    profiles: profiles.own().map(({ profile, source }) => ({ id: profile.id, text: source })),
  };
}
