import type * as z from 'zod';
import type { RosterImport, RosterImported } from '../api/titles.js';
import type { FieldProblem } from '../core/formats/yaml/read.js';
import { compare, compareThreeWays, type FieldChange } from '../core/roster/compare.js';
import { publisherProblems } from '../core/roster/credentials.js';
import { IdHolders } from '../core/roster/holders.js';
import type { Roster } from '../core/roster/model.js';
import { valueAt } from '../core/text/own-values.js';
import { faultsOf, refusal, ServiceError } from './errors.js';
import type { Service } from './service.js';
import type { Writer } from './store/roster-store.js';

type Incoming = Omit<Roster, 'syndexa' | 'revision'>;

/** A longer document (characters) is read in a worker thread. */
const largeDocument = 200_000;

/**
 * Takes a roster document in, whole or not at all.
 * @throws ServiceError `invalid` with every fault and its place, or `stale` when the record changed since the export
 */
export async function importRoster(
  service: Service,
  { document: text, prune, dryRun }: z.output<typeof RosterImport>,
  { writer, signal }: { writer: Writer; signal: AbortSignal },
): Promise<z.infer<typeof RosterImported>> {
  const options = { signal, isLarge: text.length > largeDocument };
  const read = await service.runner.record('readRoster', text, options);
  if (!read.roster)
    throw new ServiceError('invalid', 'The roster document is not right.', {
      errors: faultsOf(read.problems),
      fix: 'Correct the fields named here.',
    });
  const taken = take(service, read.roster, { prune, dryRun, writer });
  if (!('problems' in taken)) return taken;
  const { problems } = taken;
  const fields = problems.map(({ field }) => field.split('.'));
  const places = await service.runner.record('placesIn', { text, fields }, options);
  throw refusal(
    problems.map((problem, at) => ({ ...problem, ...(places[at] ? { place: places[at] } : {}) })),
  );
}

/** Writes a roster that was read from a document, unless something is wrong with it. */
function take(
  service: Service,
  { syndexa: _, revision: base, ...document }: Roster,
  { prune, dryRun, writer }: { prune: boolean; dryRun: boolean; writer: Writer },
): z.infer<typeof RosterImported> | { problems: FieldProblem[] } {
  const { roster, events, titleWork } = service;
  return roster.together(() => {
    const { titles, publisher } = roster.roster();
    const current: Incoming = { ...(publisher && { publisher }), titles };
    const target: Incoming = {
      ...current,
      ...document,
      titles: { ...(prune ? {} : titles), ...document.titles },
    };
    const changes = compare(current, target);
    // An empty record has nothing that a document could be older than.
    const isEmpty = Object.keys(titles).length === 0 && !publisher;
    if (base !== undefined && base !== roster.revision() && changes.length > 0 && !isEmpty)
      throw staleDocument(service, base, current, target);
    if (changes.length === 0) return { revision: roster.revision(), changes, applied: !dryRun };
    const changed = changedTitles(changes);
    const holders = IdHolders.in(target.titles);
    const problems = problemsOf(service, changed, { document, current, holders });
    if (problems.length > 0) return { problems };
    if (!dryRun) {
      if (target.publisher) roster.savePublisher(target.publisher, 'any', writer);
      // What does not differ is not written.
      const titles = new Map([...changed].map((id) => [id, valueAt(target.titles, id) ?? null]));
      titleWork.saveImport(titles, holders, writer);
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

/** What is wrong with the titles that a document changes, and with its publisher, that was not wrong before. */
function problemsOf(
  { profiles, titleWork }: Service,
  changed: ReadonlySet<string>,
  { document, current, holders }: { document: Incoming; current: Incoming; holders: IdHolders },
): FieldProblem[] {
  const below = (head: string, problems: readonly FieldProblem[]) =>
    problems.map((problem) => ({ ...problem, field: `${head}.${problem.field}` }));
  const incoming = Object.fromEntries(Object.entries(document.titles).filter(([id]) => changed.has(id)));
  const found = titleWork.problemsOfImport(incoming, current.titles, holders);
  const { publisher } = document;
  return [
    ...[...found].flatMap(([id, problems]) => below(`titles.${id}`, problems)),
    ...(publisher ? below('publisher', publisherProblems(publisher, profiles.profiles())) : []),
  ];
}
