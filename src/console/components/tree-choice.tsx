import { useState } from 'react';
import { useTrees } from '../queries.js';
import { Choice } from './controls.js';
import { FolderPicker } from './folder-picker.js';

/** A source tree that the service can read: one that is linked, or another folder below its roots. */
export function TreeChoice({ path, set }: { path: string; set: (path: string) => void }) {
  const linked = [...new Set((useTrees().data ?? []).map((tree) => tree.path))];
  const [isElsewhere, setElsewhere] = useState(false);
  const isPicked = isElsewhere || linked.length === 0;
  return (
    <>
      {linked.length > 0 && (
        <Choice
          label="Tree"
          value={isElsewhere ? 'elsewhere' : path}
          set={(chosen) => {
            setElsewhere(chosen === 'elsewhere');
            set(chosen === 'elsewhere' ? '' : chosen);
          }}
          all="choose a tree"
          options={[...linked.map((one) => [one, one] as const), ['elsewhere', 'another folder…'] as const]}
        />
      )}
      {isPicked && <FolderPicker chosen={[path]} choose={(chosen, on) => set(on ? chosen : '')} />}
    </>
  );
}
