import type * as z from 'zod';
import type { RosterImport, RosterImported } from '../api/titles.js';
import type { FieldProblem } from '../core/formats/yaml/read.js';
import { compare, compareThreeWays, type FieldChange } from '../core/roster/compare.js';
import { publisherProblems } from '../core/roster/credentials.js';
import { readRoster } from '../core/roster/document.js';
import type { Roster } from '../core/roster/model.js';
import { valueAt } from '../core/text/own-values.js';
import { faultsOf, refuse, ServiceError } from './errors.js';
import type { Service } from './service.js';
import type { Writer } from './store/roster-store.js';

type Incoming = Omit<Roster, 'syndexa' | 'revision'>;

/**
 * Takes a roster document in, whole or not at all.
 * @throws ServiceError `invalid` with every fault and its place, or `stale` when the record changed since the export
 */
export function importRoster(
  service: Service,
  { document: text, prune, dryRun }: z.output<typeof RosterImport>,
  writer: Writer,
): z.infer<typeof RosterImported> {
  const { roster, events } = service;
  const read = readRoster(text);
  if (!read.roster)
    throw new ServiceError('invalid', 'The roster document is not right.', {
      errors: faultsOf(read.problems),
      fix: 'Correct the fields named here.',
    });
  const { syndexa: _, revision: base, ...document } = read.roster;
  return roster.together(() => {
    const { titles, publisher } = roster.roster();
    const current: Incoming = { ...(publisher && { publisher }), titles };
    const target: Incoming = {
      ...current,
      ...document,
      titles: { ...(prune ? {} : titles), ...document.titles },
    };
    const changes = compare(current, target);
    if (base !== undefined && base !== roster.revision() && changes.length > 0)
      throw staleDocument(service, base, current, target);
    refuse(problemsOf(service, { document, current, target }, read.placeOf));
    if (!dryRun) {
      if (target.publisher) roster.savePublisher(target.publisher, writer);
      // What does not differ is not written.
      for (const id of changedTitles(changes))
        roster.save(id, valueAt(target.titles, id) ?? null, 'any', writer);
      events.tell({ kind: 'roster' });
    }
    return { revision: roster.revision(), changes, applied: !dryRun };
  });
}

/** The titles that a comparison of two rosters names, in its order. */
function changedTitles(changes: readonly FieldChange[]): Set<string> {
  return new Set(
    changes.flatMap(({ path }) => {
      const [, id] = /^titles\.([^.]+)/.exec(path) ?? [];
      return id ?? [];
    }),
  );
}

/** The document was written from another revision than the present one: what changed on either side. */
function staleDocument({ roster }: Service, base: number, current: Incoming, target: Incoming): ServiceError {
  const now = roster.revision();
  const detail =
    base > now
      ? `The document was written from revision ${base}, which this record never had (it is at ${now}).`
      : `The document was written from revision ${base}; the record is at ${now} since.`;
  return new ServiceError('stale', detail, {
    changes: base < now ? compareThreeWays(roster.rosterAt(base), current, target) : [],
    fix: 'Export again (syndexa roster export FILE keeps your comments), put your changes in, and import that.',
  });
}

/** What is wrong with a document that was not wrong in the record before, with its places. */
function problemsOf(
  { profiles, titleWork }: Service,
  { document, current, target }: { document: Incoming; current: Incoming; target: Incoming },
  placeOf: (way: string[]) => FieldProblem['place'],
): FieldProblem[] {
  const placed = (head: string[], problems: readonly FieldProblem[]) =>
    problems.map((problem) => ({
      ...problem,
      field: `${head.join('.')}.${problem.field}`,
      place: placeOf([...head, ...problem.field.split('.')]),
    }));
  const found = titleWork.problemsOfImport(document.titles, current.titles, target.titles);
  const ofTitles = [...found].flatMap(([id, problems]) => placed(['titles', id], problems));
  const { publisher } = document;
  return [
    ...ofTitles,
    ...(publisher ? placed(['publisher'], publisherProblems(publisher, profiles.profiles())) : []),
  ];
}
