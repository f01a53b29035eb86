import { useState } from 'react';
import { Choice, Controls, TextInput } from '../../components/controls.js';
import { editorAddress, editors, isEditor, storedEditor, storeEditor } from '../../components/editor.js';
import { Heading } from '../../components/heading.js';
import { Done, State } from '../../components/states.js';

const presets: readonly string[] = editors.map(([template]) => template);

/** What is set for this browser alone. */
export function SettingsPage() {
  const [template, setTemplate] = useState(storedEditor);
  const [isOwn, setOwn] = useState(template !== '' && !presets.includes(template));
  const isRight = template === '' || isEditor(template);
  const set = (next: string) => {
    setTemplate(next);
    if (next === '' || isEditor(next)) storeEditor(next);
  };
  return (
    <main className="page">
      <Heading>How do you work in this browser?</Heading>
      <p className="lede">These settings are stored in this browser only.</p>
      <h2>Your editor</h2>
      <p>Places in linked trees open in it, when this browser runs on the machine that has the trees.</p>
      <Controls name="Your editor">
        <Choice
          label="Editor"
          all="none"
          value={isOwn ? 'own' : template}
          set={(chosen) => {
            setOwn(chosen === 'own');
            if (chosen !== 'own') set(chosen);
          }}
          options={[...editors, ['own', 'another, by its address…'] as const]}
        />
        {isOwn && (
          <TextInput
            label="Address that opens a file"
            hint="editor://open?file={path}&line={line}"
            value={template}
            set={set}
            isMono
          />
        )}
      </Controls>
      {!isRight && (
        <State tone="bad" shape="■">
          Write the address of an editor, such as editor://open?file={'{path}'}&line={'{line}'}.
        </State>
      )}
      {isRight && template !== '' && (
        <>
          <Done>A place opens at such an address:</Done>
          <code className="text-break">
            {editorAddress(template, {
              path: '/home/you/work/tidewick/app/build.gradle.kts',
              line: 12,
              column: 5,
            })}
          </code>
        </>
      )}
    </main>
  );
}
