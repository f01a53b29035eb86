interface ConflictNoteProps {
  /** What the field is called. */
  label: string;
  mine: string;
  theirs: string;
  settle: (keep: 'mine' | 'theirs') => void;
}

/** A value that was changed here and elsewhere: both are shown, and a person says which it is to be. */
export function ConflictNote({ label, mine, theirs, settle }: ConflictNoteProps) {
  return (
    <div className="conflict" role="alert" aria-label={`${label} was changed elsewhere`}>
      <div>This was changed in the meantime.</div>
      <dl>
        <dt>theirs</dt>
        <dd>{shown(theirs)}</dd>
        <dt>yours</dt>
        <dd>{shown(mine)}</dd>
      </dl>
      <button type="button" className="btn btn-sm btn-outline-secondary" onClick={() => settle('theirs')}>
        Use their value
      </button>
      <button type="button" className="btn btn-sm btn-outline-secondary" onClick={() => settle('mine')}>
        Keep your value
      </button>
    </div>
  );
}

function shown(value: string) {
  return value === '' ? <span className="soft">nothing</span> : value;
}
