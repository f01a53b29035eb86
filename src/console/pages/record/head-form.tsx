import { useState } from 'react';
import type { TitleRecord } from '../../../api/titles.js';
import { audienceNames } from '../../../core/words/names.js';
import { call, etag } from '../../api.js';
import { Choice } from '../../components/fields.js';
import { ProblemNote } from '../../components/states.js';
import { meaningOf, TitleFields } from '../../components/title-fields.js';
import { useSave } from './use-save.js';

/** Name, identifiers, stages and audience of a title. */
export function HeadForm({ record }: { record: TitleRecord }) {
  const { title, id, version } = record;
  const [audience, setAudience] = useState(title.audience);
  const [draft, setDraft] = useState({
    name: title.name,
    android: title.editions.android?.identifier ?? '',
    ios: title.editions.ios?.identifier ?? '',
    test: title.stages.test.join(', '),
    production: title.stages.production.join(', '),
  });
  const save = useSave<null>(record, () =>
    call('changeTitle', {
      params: { title: id },
      headers: { 'If-Match': etag(version) },
      body: { ...meaningOf(draft), audience },
    }),
  );
  return (
    <form
      aria-label="Title"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate(null);
      }}
    >
      <div className="fields">
        <TitleFields
          prefix="record"
          draft={draft}
          change={(part) => setDraft({ ...draft, ...part })}
          error={save.error}
        />
        <Choice
          id="record-audience"
          label="Audience"
          value={audience}
          choices={audienceNames}
          onChange={(value) => setAudience(value as typeof audience)}
        />
      </div>
      {save.error && <ProblemNote error={save.error} />}
      <button type="submit" className="btn btn-sm btn-primary mt-2" disabled={save.isPending}>
        Save the title
      </button>
      {save.isSuccess && <span className="soft ms-2">saved</span>}
    </form>
  );
}
