import type * as z from 'zod';
import { counted } from '../core/text/counted.js';
import type { RosterImport, RosterImported } from '../api/titles.js';
import type { FieldProblem } from '../core/formats/yaml/read.js';
import { compare, compareThreeWays, type FieldChange } from '../core/roster/compare.js';
import { publisherProblems } from '../core/roster/credentials.js';
import { readProfile } from '../core/network/read.js';
import { IdHolders } from '../core/roster/holders.js';
import type { AcceptedFindings, Roster } from '../core/roster/model.js';
import { valueAt } from '../core/text/own-values.js';
import type { SourcedProfile } from '../api/shipped-profiles.js';
import { faultsOf, refusal, ServiceError } from './errors.js';
import type { Service } from './service.js';
import type { Writer } from './store/roster-store.js';

type Incoming = Omit<Roster, 'syndexa' | 'revision'>;

/** A longer document (characters) is read in a worker thread. */
const largeDocument = 200_000;

/**
 * Imports a roster document, completely or not at all.
 * @throws ServiceError `invalid` with every fault and its place, or `stale` when the record changed since the export
 */
export async function importRoster(
  service: Service,
  { document: text, prune, dryRun, profiles: texts }: z.output<typeof RosterImport>,
  { writer, signal }: { writer: Writer; signal: AbortSignal },
): Promise<z.infer<typeof RosterImported>> {
  const options = { signal, isLarge: text.length > largeDocument };
  const read = await service.runner.record('readRoster', text, options);
  if (!read.roster)
    throw new ServiceError('invalid', 'The roster document is invalid.', {
      errors: faultsOf(read.problems),
      fix: 'Correct the fields named here.',
    });
  const { roster } = read;
  const added = addedProfiles(service, texts);
  const before = profileChanges(service, added);
  // Profiles are kept before anything that needs them is written, and only when all of it can be.
  const isTrial = dryRun || added.length > 0;
  let taken = service.profiles.trying(added, () =>
    take(service, roster, { prune, dryRun: isTrial, writer, before }),
  );
  if (!dryRun && isTrial && !('problems' in taken)) {
    for (const { profile, source } of added) service.profiles.add(profile, source);
    taken = take(service, roster, { prune, dryRun, writer, before });
  }
  if (!('problems' in taken)) return taken;
  const { problems } = taken;
  const fields = problems.map(({ field }) => field.split('.'));
  const places = await service.runner.record('placesIn', { text, fields }, options);
  throw refusal(
    problems.map((problem, at) => ({ ...problem, ...(places[at] ? { place: places[at] } : {}) })),
  );
}

/**
 * The profiles of a document that the record lacks, or has otherwise.
 * @throws ServiceError `invalid` when one has faults
 */
function addedProfiles({ profiles }: Service, texts: readonly string[]): SourcedProfile[] {
  return texts.flatMap((source, at) => {
    const { profile, problems } = readProfile(source);
    if (!profile)
      throw new ServiceError('invalid', 'A profile beside the document is invalid.', {
        errors: faultsOf(
          problems.map((problem) => ({ ...problem, field: `profiles.${at}.${problem.field}` })),
        ),
        fix: 'Correct it; syndexa network lint FILE shows its faults.',
      });
    const known = profiles.loaded().find((one) => one.profile.id === profile.id);
    return known?.source === source ? [] : [{ profile, source }];
  });
}

/** What an import changes of the profiles. */
function profileChanges({ profiles }: Service, added: readonly SourcedProfile[]): FieldChange[] {
  const lines = (text: string) => counted(text.trimEnd().split('\n').length, 'line');
  return added.map(({ profile: { id }, source }) => {
    const known = profiles.loaded().find(({ profile }) => profile.id === id);
    return { path: `profiles.${id}`, was: known && lines(known.source), is: lines(source) };
  });
}

interface TakeOptions {
  prune: boolean;
  dryRun: boolean;
  writer: Writer;
  /** What changes besides the roster. */
  before: readonly FieldChange[];
}

/** Writes a roster that was read from a document, unless something is wrong with it. */
function take(
  service: Service,
  { syndexa: _, revision: base, ...document }: Roster,
  { prune, dryRun, writer, before }: TakeOptions,
): z.infer<typeof RosterImported> | { problems: FieldProblem[] } {
  const { roster, events, titleWork } = service;
  return roster.together(() => {
    const { titles, publisher } = roster.roster();
    const accepted = service.accepted.all();
    const current: Incoming = { ...(publisher && { publisher }), titles, accepted };
    const target: Incoming = {
      ...current,
      ...document,
      titles: { ...(prune ? {} : titles), ...document.titles },
      accepted: acceptedAfter({ titles, accepted }, document, prune),
    };
    const changes = [...before, ...compare(current, target)];
    // An empty record has nothing that a document could be older than.
    const isEmpty = Object.keys(titles).length === 0 && !publisher;
    if (base !== undefined && base !== roster.revision() && changes.length > 0 && !isEmpty)
      throw staleDocument(service, base, current, target);
    if (changes.length === 0) return { revision: roster.revision(), changes, applied: !dryRun };
    const changed = changedTitles(changes);
    const holders = IdHolders.in(target.titles);
    const problems = problemsOf(service, changed, { document, current, target, holders });
    if (problems.length > 0) return { problems };
    if (!dryRun) {
      if (target.publisher) roster.savePublisher(target.publisher, 'any', writer);
      // What does not differ is not written.
      const titles = new Map([...changed].map((id) => [id, valueAt(target.titles, id) ?? null]));
      titleWork.saveImport(titles, holders, writer);
      if (document.accepted) service.accepted.set(target.accepted ?? {});
      events.tell({ kind: 'roster' });
    }
    return { revision: roster.revision(), changes, applied: !dryRun };
  });
}

/**
 * The accepted findings after an import. A document with any replaces those of all its titles; other titles keep
 * theirs.
 */
function acceptedAfter(
  { titles, accepted = {} }: Pick<Incoming, 'titles' | 'accepted'>,
  document: Incoming,
  prune: boolean,
): AcceptedFindings {
  const stays = (id: string) =>
    valueAt(document.titles, id) !== undefined
      ? !document.accepted
      : valueAt(titles, id) !== undefined && !prune;
  const kept = Object.entries(accepted).filter(([id]) => stays(id));
  return { ...Object.fromEntries(kept), ...document.accepted };
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
  // Accepted findings have no revisions.
  const plain = ({ accepted: _, ...rest }: Incoming) => rest;
  const detail =
    base > now
      ? `The document was written from revision ${base}, which this roster never had (it is at ${now}).`
      : `The document was written from revision ${base}, but the roster is now at ${now}.`;
  return new ServiceError('stale', detail, {
    changes: base < now ? compareThreeWays(roster.rosterAt(base), plain(current), plain(target)) : [],
    fix: 'Export again (syndexa roster export FILE keeps your comments), apply your changes, and import that.',
  });
}

/** What is wrong with the titles that a document changes, and with its publisher, that was not wrong before. */
function problemsOf(
  { profiles, titleWork }: Service,
  changed: ReadonlySet<string>,
  {
    document,
    current,
    target,
    holders,
  }: { document: Incoming; current: Incoming; target: Incoming; holders: IdHolders },
): FieldProblem[] {
  const below = (head: string, problems: readonly FieldProblem[]) =>
    problems.map((problem) => ({ ...problem, field: `${head}.${problem.field}` }));
  const incoming = Object.fromEntries(Object.entries(document.titles).filter(([id]) => changed.has(id)));
  const found = titleWork.problemsOfImport(incoming, current.titles, holders);
  const { publisher } = document;
  const strangers = Object.keys(document.accepted ?? {}).filter((id) => !valueAt(target.titles, id));
  return [
    ...strangers.map((id) => ({
      field: `accepted.${id}`,
      message: `There is no title ${id}.`,
      fix: 'Remove these accepted findings, or add the title.',
    })),
    ...[...found].flatMap(([id, problems]) => below(`titles.${id}`, problems)),
    ...(publisher ? below('publisher', publisherProblems(publisher, profiles.profiles())) : []),
  ];
}
