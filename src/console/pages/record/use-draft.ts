import { useMutation, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { TitleRecord } from '../../../api/titles.js';
import { putAt, valueAt } from '../../../core/text/own-values.js';
import { call, CallError } from '../../api.js';
import { keys } from '../../queries.js';

/** Fields as they are typed, by name. */
export type Fields = Record<string, string>;

export interface DraftSource {
  record: TitleRecord;
  /** What the fields say by a record. */
  fieldsOf: (record: TitleRecord) => Fields;
  /**
   * Writes fields that were changed.
   * @param basis the record that they were changed in, whose version the write names
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

/**
 * The fields of a form. Only those that were changed are written, against the record as it was when the first of them was
 * typed in; a record that somebody changed meanwhile is merged field by field, and nothing of anybody's is lost unseen.
 */
export function useDraft({ record, fieldsOf, write }: DraftSource): Draft {
  const client = useQueryClient();
  const [typed, setTyped] = useState<Fields>({});
  const [opened, setOpened] = useState(record);
  const now = fieldsOf(record);
  const before = fieldsOf(opened);
  const changed = changedFields(typed, before);
  const conflicts = conflictsOf(changed, before, now);
  const saving = useMutation<unknown, CallError, { fields: Fields; basis: TitleRecord }>({
    mutationFn: ({ fields, basis }) => writeMerged({ record, fieldsOf, write }, fields, basis, client),
    onSuccess: async (_, { fields }) => {
      await client.invalidateQueries({ queryKey: keys.title(record.id) });
      setTyped((typedNow) => without(typedNow, fields));
      await client.invalidateQueries({ queryKey: keys.board(record.id) });
      await client.invalidateQueries({ queryKey: keys.titles });
    },
  });

  /** The record that what is typed from now on is changed in. */
  function set(part: Fields): TitleRecord {
    const basis = Object.keys(changed).length === 0 ? record : opened;
    setOpened(basis);
    if (saving.status !== 'pending') saving.reset();
    setTyped({ ...typed, ...part });
    return basis;
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
      const basis = set(part);
      const fields = changedFields({ ...typed, ...part }, fieldsOf(basis));
      if (Object.keys(fields).length > 0) saving.mutate({ fields, basis });
    },
    settle(field, keep) {
      if (keep === 'theirs') setTyped(without(typed, { [field]: valueAt(typed, field) ?? '' }));
      // What they wrote is seen now: the form goes on from there.
      setOpened(record);
    },
    reset: () => setTyped({}),
    save() {
      if (Object.keys(changed).length > 0 && conflicts.size === 0)
        saving.mutate({ fields: changed, basis: opened });
    },
  };
}

/** Writes against a record; when it is another by now, and no field was changed twice, against that. */
async function writeMerged(
  { record, fieldsOf, write }: DraftSource,
  fields: Fields,
  basis: TitleRecord,
  client: QueryClient,
): Promise<unknown> {
  try {
    return await write(fields, basis);
  } catch (error) {
    if (!(error instanceof CallError) || error.problem.code !== 'changed') throw error;
    const fresh = await call('showTitle', { params: { title: record.id } });
    client.setQueryData(keys.title(record.id), fresh);
    if (conflictsOf(fields, fieldsOf(basis), fieldsOf(fresh)).size > 0) throw error;
    return await write(fields, fresh);
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
