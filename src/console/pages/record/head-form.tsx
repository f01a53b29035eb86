import type { TitleRecord } from '../../../api/titles.js';
import type { BodyOf } from '../../../api/routes.js';
import { platformNames as platformKeys, audienceNames } from '../../../core/words/names.js';
import { putAt, valueAt } from '../../../core/text/own-values.js';
import type { Title } from '../../../core/roster/model.js';
import { call, etag } from '../../api.js';
import { Choice, words } from '../../components/fields.js';
import { ProblemNote } from '../../components/states.js';
import { TitleFields, type TitleDraft } from '../../components/title-fields.js';
import { FieldConflict } from './field-conflict.js';
import { useDraft, type Fields } from './use-draft.js';

function fieldsOf({ title }: TitleRecord): Fields {
  const fields: TitleDraft & { audience: string } = {
    name: title.name,
    android: title.editions.android?.identifier ?? '',
    ios: title.editions.ios?.identifier ?? '',
    test: title.stages.test.join(', '),
    production: title.stages.production.join(', '),
    audience: title.audience,
  };
  return { ...fields };
}

function draftOf(values: Fields): TitleDraft {
  const at = (field: keyof TitleDraft) => valueAt(values, field) ?? '';
  return {
    name: at('name'),
    android: at('android'),
    ios: at('ios'),
    test: at('test'),
    production: at('production'),
  };
}

/** The changed fields to send: a part that is written as a whole keeps the other values of the record. */
function partsOf(changed: Fields, { title }: TitleRecord): BodyOf<'changeTitle'> {
  const has = (...fields: string[]) => fields.some((field) => Object.hasOwn(changed, field));
  const stage = (name: 'test' | 'production') => {
    const typed = valueAt(changed, name);
    return typed === undefined ? title.stages[name] : words(typed);
  };
  return {
    ...(has('name') ? { name: changed.name } : {}),
    ...(has('audience') ? { audience: changed.audience as Title['audience'] } : {}),
    ...(has('test', 'production')
      ? { stages: { test: stage('test'), production: stage('production') } }
      : {}),
    ...(has('android', 'ios') ? { editions: editionsOf(changed, title) } : {}),
  };
}

/** Editions with other identifiers; what else an edition says stays. */
function editionsOf(changed: Fields, { editions }: Title): Title['editions'] {
  const next: Title['editions'] = {};
  for (const platform of platformKeys) {
    const before = editions[platform];
    const identifier = valueAt(changed, platform) ?? before?.identifier ?? '';
    if (identifier !== '') putAt<unknown>(next, platform, { ...before, identifier });
  }
  return next;
}

/** Name, identifiers, stages and audience of a title. */
export function HeadForm({ record }: { record: TitleRecord }) {
  const draft = useDraft({
    record,
    name: 'title',
    fieldsOf,
    write: (changed, { id, version, ...basis }) =>
      call('changeTitle', {
        params: { title: id },
        headers: { 'If-Match': etag(version) },
        body: partsOf(changed, { id, version, ...basis }),
      }),
  });
  const { values, conflicts, error } = draft;
  const note = (field: string, label: string) => <FieldConflict label={label} field={field} draft={draft} />;
  return (
    <form
      aria-label="Title"
      onSubmit={(event) => {
        event.preventDefault();
        draft.save();
      }}
    >
      <div className="fields">
        <TitleFields prefix="record" draft={draftOf(values)} change={draft.set} error={error} note={note} />
        <Choice
          id="record-audience"
          label="Audience"
          value={valueAt(values, 'audience') ?? ''}
          choices={audienceNames}
          onChange={(audience) => draft.set({ audience })}
          note={note('audience', 'Audience')}
        />
      </div>
      {error && <ProblemNote error={error} />}
      <button
        type="submit"
        className="btn btn-sm btn-primary mt-2"
        disabled={draft.isPending || !draft.isChanged || conflicts.size > 0}
      >
        Save the title
      </button>
      {draft.isChanged && (
        <button type="button" className="btn btn-sm btn-outline-secondary mt-2 ms-2" onClick={draft.reset}>
          Discard
        </button>
      )}
      {draft.isSaved && !draft.isChanged && <span className="soft ms-2">saved</span>}
    </form>
  );
}
