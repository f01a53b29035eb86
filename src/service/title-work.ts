import type { TitleRecord } from '../api/titles.js';
import type { FieldProblem } from '../core/formats/yaml/read.js';
import type { Placement, Title } from '../core/roster/model.js';
import { valueAt } from '../core/text/own-values.js';
import { revertChange } from '../core/roster/revert.js';
import { IdHolders } from '../core/roster/holders.js';
import { titleValidator, type FindHolder, type ValidateTitle } from '../core/roster/validate.js';
import { demand, type Condition } from './conditions.js';
import type { ServiceContext } from './context.js';
import { refuse, ServiceError } from './errors.js';
import { titleWithId, type ParsedIdWrite } from './title-ids.js';
import type { Writer } from './store/roster-store.js';

/** Writes of titles: every way into the record goes through the same checks. */
export class TitleWork {
  /** The owner of each ID, at a revision of the roster; −1 before the first request. */
  #holders = new IdHolders();
  #revision = -1;

  constructor(private readonly context: ServiceContext) {}

  /** What is wrong with a title that was not wrong before this change. */
  newProblems(id: string, next: Title, before: Title | undefined): FieldProblem[] {
    const elsewhere = this.holders().outside(id);
    return newProblems(titleValidator(this.context.profiles.profiles()), elsewhere, next, before);
  }

  /**
   * What is wrong with the titles of a document that was not wrong before it. They are checked against each other as
   * they will stand, so an ID may move from one to another.
   * @param holders who holds which ID once it is taken in
   */
  problemsOfImport(
    incoming: Record<string, Title>,
    current: Record<string, Title>,
    holders: IdHolders,
  ): Map<string, FieldProblem[]> {
    const validate = titleValidator(this.context.profiles.profiles());
    return new Map(
      Object.entries(incoming).map(([id, title]) => [
        id,
        newProblems(validate, holders.outside(id), title, valueAt(current, id)),
      ]),
    );
  }

  /** Saves titles that were checked, within a transaction of the caller. */
  saveImport(titles: ReadonlyMap<string, Title | null>, holders: IdHolders, writer: Writer): void {
    const { roster } = this.context;
    roster.saveAll(titles, writer);
    this.#holders = holders;
    this.#revision = roster.revision();
  }

  /** The holders of IDs as the record has them now: only titles that changed since are read. */
  private holders(): IdHolders {
    const { roster } = this.context;
    const revision = roster.revision();
    if (revision < this.#revision || this.#revision < 0) this.#holders = IdHolders.in(roster.roster().titles);
    else
      for (const id of roster.changedSince(this.#revision))
        this.#holders.set(id, roster.find(id)?.title ?? null);
    this.#revision = revision;
    return this.#holders;
  }

  /** Checks a title and saves it; the version that the writer saw has to be the current one. */
  save(
    id: string,
    next: Title,
    before: TitleRecord | undefined,
    condition: Condition,
    writer: Writer,
  ): TitleRecord {
    refuse(this.newProblems(id, next, before?.title));
    const saved = this.context.roster.save(id, next, condition, writer);
    this.context.events.tell({ kind: 'title', title: id });
    return saved ?? this.context.roster.get(id);
  }

  /**
   * Writes a placement through its title, or removes it.
   * @param placement null removes it
   * @param condition what the writer saw of the placement
   */
  savePlacement(
    id: string,
    name: string,
    placement: Placement | null,
    { condition, writer }: { condition: Condition; writer: Writer },
  ): TitleRecord {
    const { roster } = this.context;
    return roster.together(() => {
      const before = roster.get(id);
      const version = valueAt(before.placementVersions, name);
      if (placement === null && version === undefined) throw noPlacement(before, name);
      demand(condition, version, `The placement ${name} of ${id}`);
      const { [name]: _, ...others } = before.title.placements;
      const placements = placement === null ? others : { ...before.title.placements, [name]: placement };
      return this.save(id, { ...before.title, placements }, before, [before.version], writer);
    });
  }

  /**
   * Takes one change of a title back.
   * @throws ServiceError `not-found`, `changed` when the field changed again since, `invalid` when it cannot be taken
   * back
   */
  revert(id: string, revision: string, writer: Writer): TitleRecord {
    const { roster } = this.context;
    return roster.together(() => {
      const before = roster.get(id);
      const change = /^\d{1,15}$/.test(revision) ? roster.change(before.id, Number(revision)) : undefined;
      if (!change)
        throw new ServiceError('not-found', `${id} has no change ${revision.slice(0, 40)}.`, {
          fix: `syndexa title history ${id} lists its changes.`,
        });
      const reverted = revertChange(before.title, change);
      if ('title' in reverted) return this.save(before.id, reverted.title, before, [before.version], writer);
      if (reverted.why === 'added-by-it')
        throw new ServiceError('invalid', `${id} was added by this change.`, {
          fix: `Remove the title instead: syndexa title remove ${id}.`,
        });
      throw new ServiceError(
        'changed',
        `${change.path} has changed since: it is ${textOf(reverted.now)} now.`,
        {
          fix: 'Revert the later change first, or set the field to the right value.',
        },
      );
    });
  }

  /** Sets an ID or names a credential, or takes either out. */
  setId(id: string, write: ParsedIdWrite, condition: Condition, writer: Writer): TitleRecord {
    const before = this.context.roster.get(id);
    return this.save(before.id, titleWithId(before, write), before, condition, writer);
  }
}

function newProblems(
  validate: ValidateTitle,
  elsewhere: FindHolder,
  next: Title,
  before: Title | undefined,
): FieldProblem[] {
  const found = validate(next, elsewhere);
  if (found.length === 0 || !before) return found;
  const old = new Set(validate(before, elsewhere).map((problem) => JSON.stringify(problem)));
  return found.filter((problem) => !old.has(JSON.stringify(problem)));
}

/** The error of a placement that a title does not have. */
export function noPlacement({ id, title }: TitleRecord, name: string): ServiceError {
  return new ServiceError('not-found', `${id} has no placement ${name}.`, {
    fix: `Its placements are ${Object.keys(title.placements).join(', ') || 'none'}.`,
  });
}

/** A value in a message. */
function textOf(value: unknown): string {
  if (value === undefined || value === null) return 'absent';
  const text = JSON.stringify(value);
  return text.length > 100 ? `${text.slice(0, 100)}…` : text;
}
