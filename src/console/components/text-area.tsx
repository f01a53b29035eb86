import { Labelled } from './labelled.js';

interface TextAreaProps {
  id: string;
  label: string;
  text: string;
  set: (text: string) => void;
  hint?: string;
  rows?: number;
}

/** A text of several lines, as in a file; it grows with what is written. */
export function TextArea({ id, label, text, set, hint, rows = 4 }: TextAreaProps) {
  return (
    <Labelled id={id} label={label}>
      <textarea
        id={id}
        className="form-control font-monospace"
        rows={Math.min(16, Math.max(rows, text.split('\n').length))}
        value={text}
        spellCheck={false}
        placeholder={hint}
        onChange={(event) => set(event.target.value)}
      />
    </Labelled>
  );
}
