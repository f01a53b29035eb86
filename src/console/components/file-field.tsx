import { Labelled } from './labelled.js';

interface FileFieldProps {
  id: string;
  label: string;
  /** Suffixes, as `.plist,.xml`. */
  accept: string;
  isMultiple?: boolean;
  open: (files: File[]) => void;
}

/** Opens files of the person's own, under a label. */
export function FileField({ id, label, accept, isMultiple = false, open }: FileFieldProps) {
  return (
    <Labelled id={id} label={label}>
      <input
        id={id}
        type="file"
        multiple={isMultiple}
        className="form-control form-control-sm"
        accept={accept}
        onChange={(event) => open([...(event.target.files ?? [])])}
      />
    </Labelled>
  );
}
