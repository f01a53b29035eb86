import type { TitleRecord } from '../api/titles.js';
import type { FieldProblem } from '../core/formats/yaml/read.js';
import type { Title } from '../core/roster/model.js';
import { heldIds, validateTitle } from '../core/roster/validate.js';
import type { ServiceContext } from './context.js';
import { refuse } from './errors.js';
import type { Writer } from './store/roster-store.js';

/** Writes of titles: every way into the record goes through the same checks. */
export class RosterWork {
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
}
