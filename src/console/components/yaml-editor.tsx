import { autocompletion, type Completion, type CompletionContext } from '@codemirror/autocomplete';
import { yaml } from '@codemirror/lang-yaml';
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
import { setDiagnostics, type Diagnostic } from '@codemirror/lint';
import { type Text } from '@codemirror/state';
import { tags } from '@lezer/highlight';
import { basicSetup, EditorView } from 'codemirror';
import { useEffect, useRef } from 'react';
import { completeYaml, type CompletionSchema } from '../../core/formats/yaml/complete.js';

/** What is wrong at a place of the text; lines and columns count from 1. */
export interface EditorProblem {
  message: string;
  place: { line: number; column: number };
}

interface YamlEditorProps {
  label: string;
  text: string;
  setText: (text: string) => void;
  problems: readonly EditorProblem[];
  /** What keys and values are completed from. */
  schema: CompletionSchema | undefined;
}

const colours = syntaxHighlighting(
  HighlightStyle.define([
    { tag: [tags.propertyName, tags.definition(tags.propertyName)], color: 'var(--teal)' },
    { tag: tags.comment, color: 'var(--ink-soft)', fontStyle: 'italic' },
    { tag: [tags.string, tags.content], color: 'var(--ink)' },
    { tag: [tags.number, tags.bool, tags.null, tags.keyword], color: 'var(--ochre)' },
  ]),
);

const looks = EditorView.theme({
  '&': {
    maxHeight: '36rem',
    border: '1px solid var(--rule-strong)',
    backgroundColor: 'var(--paper-raised)',
    color: 'var(--ink)',
    fontSize: '0.8rem',
  },
  '&.cm-focused': { outline: '2px solid var(--teal)' },
  '.cm-scroller': { fontFamily: 'var(--bs-font-monospace)', lineHeight: '1.5' },
  '.cm-content': { caretColor: 'var(--ink)' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)' },
  '.cm-gutters': {
    backgroundColor: 'var(--paper-sunk)',
    color: 'var(--ink-soft)',
    borderRight: '1px solid var(--rule)',
  },
  '.cm-activeLine': { backgroundColor: 'transparent' },
  '.cm-activeLineGutter': { backgroundColor: 'var(--teal-soft)' },
  '.cm-selectionBackground, &.cm-focused > .cm-scroller > .cm-selectionLayer .cm-selectionBackground': {
    backgroundColor: 'var(--teal-soft)',
  },
  '.cm-tooltip, .cm-panels': {
    backgroundColor: 'var(--paper-raised)',
    color: 'var(--ink)',
    border: '1px solid var(--rule-strong)',
  },
  '.cm-tooltip.cm-tooltip-autocomplete > ul > li[aria-selected]': {
    backgroundColor: 'var(--teal)',
    color: 'var(--paper)',
  },
  '.cm-completionInfo': { maxWidth: '22rem' },
});

/** A YAML document with line numbers, faults at their places, and completion from a schema. */
export default function YamlEditor({ label, text, setText, problems, schema }: YamlEditorProps) {
  const place = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(undefined);
  // The editor lives longer than one rendering: it calls what the last one gave.
  const latest = useRef({ setText, schema });
  latest.current = { setText, schema };
  const initial = useRef(text);
  useEffect(() => {
    if (!place.current) return undefined;
    const made = new EditorView({
      parent: place.current,
      doc: initial.current,
      extensions: [
        basicSetup,
        yaml(),
        colours,
        looks,
        autocompletion({ override: [(context) => completionsAt(context, latest.current.schema)] }),
        EditorView.contentAttributes.of({ 'aria-label': label, spellcheck: 'false', tabindex: '0' }),
        EditorView.updateListener.of((update) => {
          if (update.docChanged) latest.current.setText(update.state.doc.toString());
        }),
      ],
    });
    view.current = made;
    return () => made.destroy();
  }, [label]);
  useEffect(() => {
    const shown = view.current;
    if (!shown || shown.state.doc.toString() === text) return;
    shown.dispatch({ changes: { from: 0, to: shown.state.doc.length, insert: text } });
  }, [text]);
  useEffect(() => {
    const shown = view.current;
    if (shown)
      shown.dispatch(
        setDiagnostics(
          shown.state,
          problems.map((one) => diagnosticOf(one, shown.state.doc)),
        ),
      );
  }, [problems]);
  return <div ref={place} />;
}

/** A problem as the editor marks it: from its place to the end of the line. */
function diagnosticOf({ message, place }: EditorProblem, document: Text): Diagnostic {
  const line = document.line(Math.min(Math.max(place.line, 1), document.lines));
  const from = Math.min(line.from + Math.max(place.column - 1, 0), line.to);
  return { from, to: Math.max(from, line.to), severity: 'error', message };
}

function completionsAt(context: CompletionContext, schema: CompletionSchema | undefined) {
  if (!schema) return null;
  const found = completeYaml(context.state.doc.toString(), context.pos, schema);
  if (!found || found.options.length === 0) return null;
  // While nothing is typed, the list is shown only to who asks for it.
  if (!context.explicit && found.from === context.pos) return null;
  return {
    from: found.from,
    options: found.options.map(({ kind, label, insert, about, isRequired }): Completion => ({
      label,
      apply: insert,
      type: kind === 'key' ? 'property' : 'constant',
      ...(isRequired ? { detail: 'required', boost: 1 } : {}),
      ...(about === '' ? {} : { info: about }),
    })),
  };
}
