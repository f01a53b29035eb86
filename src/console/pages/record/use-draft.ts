import { useMutation, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import type { TitleRecord } from '../../../api/titles.js';
import { putAt, valueAt } from '../../../core/text/own-values.js';
import { call, CallError } from '../../api.js';
import { useKept } from '../../components/use-kept.js';
import { keys } from '../../queries.js';

/** Fields as they are typed, by name. */
export type Fields = Record<string, string>;

export interface DraftSource {
  record: TitleRecord;
  /** Tells its fields from those of the other forms of the record. */
  name: string;
  /** What the fields say by a record. */
  fieldsOf: (record: TitleRecord) => Fields;
  /**
   * Writes changed fields.
   * @param basis the known record, whose version the write names
   */
  write: (changed: Fields, basis: TitleRecord) => Promise<unknown>;
}

/** A value that two people changed. */
export interface Conflict {
  mine: string;
  theirs: string;
}

export interface Draft {
  /** What each field shows: what was typed, else what the record says now. */
  values: Fields;
  /** Fields that were changed here and, since the form was opened, elsewhere too, to something else. */
  conflicts: ReadonlyMap<string, Conflict>;
  isChanged: boolean;
  isPending: boolean;
  isSaved: boolean;
  error: CallError | null;
  set: (part: Fields) => void;
  /** Sets fields and writes them at once, as for a choice from a list. */
  choose: (part: Fields) => void;
  /** Settles a conflict: what was typed here is to be written all the same, or is given up. */
  settle: (field: string, keep: 'mine' | 'theirs') => void;
  /** Gives up all that was typed. */
  reset: () => void;
  save: () => void;
}

/** What was typed, and what the record said in the same fields when somebody began to type in them. */
interface Typed {
  typed: Fields;
  before: Fields;
}

/** Where the drafts of a title are kept. */
export function draftsOf(title: string): string {
  return `record ${title} `;
}

/**
 * The fields of a form. Only those that were changed are written. A record that somebody changed meanwhile is merged
 * field by field, and nothing of anybody's is lost unseen. What is typed is kept when the page, or the row, goes out of
 * view.
 */
export function useDraft({ record, name, fieldsOf, write }: DraftSource): Draft {
  const client = useQueryClient();
  const [kept, keep] = useKept(`${draftsOf(record.id)}${name}`);
  const { typed, before } = kept === '' ? { typed: {}, before: {} } : (JSON.parse(kept) as Typed);
  const put = (next: Typed) => keep(Object.keys(next.typed).length === 0 ? '' : JSON.stringify(next));
  const now = fieldsOf(record);
  const changed = changedFields(typed, before);
  const conflicts = conflictsOf(changed, before, now);
  const saving = useMutation<unknown, CallError, Typed>({
    mutationFn: (what) => writeMerged({ record, name, fieldsOf, write }, what, client),
    onSuccess: async (_, written) => {
      await client.invalidateQueries({ queryKey: keys.title(record.id) });
      settled.current(written.typed);
      await client.invalidateQueries({ queryKey: keys.board(record.id) });
      await client.invalidateQueries({ queryKey: keys.titles });
    },
  });
  // What is typed while a write is under way stays, and goes on from what was written.
  const settled = useRef((_: Fields) => {});
  settled.current = (written) => put({ typed: without(typed, written), before: { ...before, ...written } });

  function set(part: Fields): Typed {
    if (saving.status !== 'pending') saving.reset();
    const next = { typed: { ...typed, ...part }, before: { ...now, ...before } };
    const differs = changedFields(next.typed, next.before);
    put({ typed: differs, before: next.before });
    return { ...next, typed: differs };
  }

  return {
    values: { ...now, ...typed },
    conflicts,
    isChanged: Object.keys(changed).length > 0,
    isPending: saving.isPending,
    isSaved: saving.isSuccess,
    // A conflict is shown at its field.
    error: saving.error?.problem.code === 'changed' && conflicts.size > 0 ? null : saving.error,
    set,
    choose(part) {
      const next = set(part);
      if (Object.keys(next.typed).length > 0) saving.mutate(next);
    },
    settle(field, how) {
      const theirs = { ...before, [field]: valueAt(now, field) ?? '' };
      // What they wrote is seen now: the form goes on from there.
      if (how === 'mine') put({ typed, before: theirs });
      else put({ typed: without(typed, { [field]: valueAt(typed, field) ?? '' }), before: theirs });
    },
    reset: () => keep(''),
    save() {
      if (Object.keys(changed).length > 0 && conflicts.size === 0) saving.mutate({ typed: changed, before });
    },
  };
}

/**
 * Writes against the record as it is known; when it is another by now, and no field was changed twice, against that.
 */
async function writeMerged(
  { record, fieldsOf, write }: DraftSource,
  { typed, before }: Typed,
  client: QueryClient,
): Promise<unknown> {
  try {
    return await write(typed, record);
  } catch (error) {
    if (!(error instanceof CallError) || error.problem.code !== 'changed') throw error;
    const fresh = await call('showTitle', { params: { title: record.id } });
    client.setQueryData(keys.title(record.id), fresh);
    if (conflictsOf(typed, before, fieldsOf(fresh)).size > 0) throw error;
    return await write(typed, fresh);
  }
}

function changedFields(typed: Fields, before: Fields): Fields {
  return Object.fromEntries(
    Object.entries(typed).filter(([field, value]) => value !== valueAt(before, field)),
  );
}

function conflictsOf(changed: Fields, before: Fields, now: Fields): Map<string, Conflict> {
  const found = new Map<string, Conflict>();
  for (const [field, mine] of Object.entries(changed)) {
    const theirs = valueAt(now, field) ?? '';
    if (theirs !== (valueAt(before, field) ?? '') && theirs !== mine) found.set(field, { mine, theirs });
  }
  return found;
}

/** What was typed, without fields that stand as they were written; one that was typed on since stays. */
function without(typed: Fields, written: Fields): Fields {
  const rest: Fields = {};
  for (const [field, value] of Object.entries(typed))
    if (valueAt(written, field) !== value) putAt(rest, field, value);
  return rest;
}
