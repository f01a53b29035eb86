import type { TitleRecord } from '../api/titles.js';
import type { FieldProblem } from '../core/formats/yaml/read.js';
import type { Placement, Title } from '../core/roster/model.js';
import { valueAt } from '../core/text/own-values.js';
import { heldIds, validateTitle } from '../core/roster/validate.js';
import type { ServiceContext } from './context.js';
import { refuse, ServiceError } from './errors.js';
import { titleWithId, type ParsedIdWrite } from './title-ids.js';
import type { Writer } from './store/roster-store.js';

/** Writes of titles: every way into the record goes through the same checks. */
export class TitleWork {
  constructor(private readonly context: ServiceContext) {}

  /** What is wrong with a title that was not wrong before this change. */
  newProblems(id: string, next: Title, before: Title | undefined): FieldProblem[] {
    const { roster } = this.context;
    const profiles = this.context.profiles.profiles();
    const elsewhere = roster
      .titleIds()
      .filter((other) => other !== id)
      .flatMap((other) => heldIds(roster.get(other).title).map((held) => ({ ...held, title: other })));
    const old = new Set(
      before ? validateTitle(before, { profiles, elsewhere }).map((problem) => JSON.stringify(problem)) : [],
    );
    return validateTitle(next, { profiles, elsewhere }).filter(
      (problem) => !old.has(JSON.stringify(problem)),
    );
  }

  /** Checks a title and saves it; the version that the writer saw has to be the current one. */
  save(
    id: string,
    next: Title,
    before: TitleRecord | undefined,
    expected: number | 'new',
    writer: Writer,
  ): TitleRecord {
    refuse(this.newProblems(id, next, before?.title));
    const saved = this.context.roster.save(id, next, expected, writer);
    this.context.events.tell({ kind: 'title', title: id });
    return saved ?? this.context.roster.get(id);
  }

  /**
   * Writes a placement through its title, or removes it.
   * @param placement null removes it
   * @param expected the version of the placement that the writer saw, or `new`
   */
  savePlacement(
    id: string,
    name: string,
    placement: Placement | null,
    { expected, writer }: { expected: number | 'new'; writer: Writer },
  ): TitleRecord {
    const { roster } = this.context;
    return roster.together(() => {
      const before = roster.get(id);
      demandVersion(before, name, expected);
      const { [name]: _, ...others } = before.title.placements;
      const placements = placement === null ? others : { ...before.title.placements, [name]: placement };
      return this.save(id, { ...before.title, placements }, before, before.version, writer);
    });
  }

  /** Sets an ID or names a credential, or takes either out. */
  setId(id: string, write: ParsedIdWrite, expected: number | 'new', writer: Writer): TitleRecord {
    const before = this.context.roster.get(id);
    return this.save(before.id, titleWithId(before, write), before, expected, writer);
  }
}

/** Refuses a write of a placement that is not at the version that the writer saw. */
function demandVersion(
  { id, title, placementVersions }: TitleRecord,
  name: string,
  expected: number | 'new',
): void {
  const version = valueAt(placementVersions, name);
  if (expected === 'new') {
    if (version === undefined) return;
    throw new ServiceError('exists', `${id} has a placement ${name} already.`, {
      fix: 'Choose another name, or change that placement.',
    });
  }
  if (version === undefined)
    throw new ServiceError('not-found', `${id} has no placement ${name}.`, {
      fix: `Its placements are ${Object.keys(title.placements).join(', ') || 'none'}.`,
    });
  if (version !== expected)
    throw new ServiceError(
      'changed',
      `The placement ${name} is at version ${version}, not ${expected}: somebody changed it since.`,
      { fix: 'Read it again, look at what changed, and repeat your change.' },
    );
}
