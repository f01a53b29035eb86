import { Link } from 'react-router';
import type { Place } from '../../core/facts/evidence.js';
import type { Question } from '../tree-queries.js';
import { editorAddress, storedEditor } from './editor.js';
import { useLinked } from './use-linked.js';

/** Opens a place of a linked tree in the editor that somebody chose. A tree that was sent may be on another machine. */
export function EditorLink({ question, place }: { question: Question; place: Place }) {
  const { linked } = useLinked(question);
  const template = storedEditor();
  if (!linked || template === '') return null;
  return (
    <a href={editorAddress(template, { ...place, path: `${linked.path}/${place.path}` })}>
      open in the editor
    </a>
  );
}

/** Where an editor is chosen, while none is. */
export function ChooseEditor() {
  if (storedEditor() !== '') return null;
  return (
    <>
      {' '}
      <Link to="/settings">Choose your editor</Link>, and places open in it.
    </>
  );
}
