import { useState } from 'react';
import { Link } from 'react-router';
import { copyTitle } from '../../../core/roster/bulk/copy-title.js';
import { TextField } from '../../components/fields.js';
import { State } from '../../components/states.js';
import { TakingView, useTaking } from '../../components/taking.js';
import { useTitles } from '../../queries.js';
import { useKeptFields } from '../../components/use-kept-fields.js';
import { TitleChoice, useChosenTitle } from './title-choice.js';
import { documentOf } from './titles-document.js';

const blank = { id: '', name: '', android: '', ios: '' };

function useCopying(title: string, { id, name, android, ios }: typeof blank, done: () => void) {
  const identifiers = { ...(android === '' ? {} : { android }), ...(ios === '' ? {} : { ios }) };
  return useTaking(() => documentOf([title], (from) => [[id, copyTitle(from, { name, identifiers })]]), done);
}

/** Makes a title like another: networks, placements and settings without the IDs. */
export function CopyTitle() {
  const known = useTitles().data ?? [];
  const [draft, setDraft, forget] = useKeptFields('copied title', blank);
  const [made, setMade] = useState(blank);
  const taking = useCopying(useChosenTitle(), draft, () => {
    setMade(draft);
    forget();
  });
  const isTaken = taking.taken === undefined && known.some(({ id }) => id === draft.id);
  const field = (name: keyof typeof blank, label: string, hint: string) => (
    <TextField
      key={name}
      id={`copy-${name}`}
      label={label}
      value={draft[name]}
      placeholder={hint}
      onChange={(value) => {
        setDraft({ [name]: value });
        taking.forget();
      }}
      error={taking.error}
      faultsOf={name === 'android' || name === 'ios' ? [`${name}.identifier`] : [name]}
      mono={name !== 'name'}
    />
  );
  return (
    <>
      <div className="controls">
        <span className="soft">like</span>
        <TitleChoice label="Title to copy" />
      </div>
      <div className="fields">
        {field('id', 'Short name', 'tidewick-lite')}
        {field('name', 'Name', 'Tidewick Lite')}
        {field('android', 'Application ID (Android)', 'example.saltmarsh.tidewick.lite')}
        {field('ios', 'Bundle ID (iOS)', 'example.saltmarsh.tidewick.lite')}
      </div>
      {isTaken && (
        <p>
          <State tone="bad" shape="■">
            There is a title {draft.id} already. Choose another short name.
          </State>
        </p>
      )}
      <TakingView taking={taking} isEmpty={draft.id === '' || draft.name === '' || isTaken} />
      {taking.taken && (
        <p>
          <Link to={`/titles/${made.id}/record`}>See the record of {made.name}.</Link>
        </p>
      )}
    </>
  );
}
