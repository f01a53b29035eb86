import type { FileEdit } from '../../core/edits/model.js';

/** A unified diff, file by file, with the rules that each file's edits fix. */
export function Diff({ patch, edits }: { patch: string; edits: readonly FileEdit[] }) {
  const files = patch.split(/^(?=diff --git )/m).filter((part) => part !== '');
  return (
    <>
      {files.map((part) => {
        const lines = part.split('\n');
        const path = (/^\+\+\+ b\/(.*?)\t?$/m.exec(part) ?? /^--- a\/(.*?)\t?$/m.exec(part))?.[1] ?? '';
        const edit = edits.find((candidate) => candidate.path === path);
        const body = lines.slice(lines.findIndex((line) => line.startsWith('@@')));
        return (
          <div key={path} role="group" className="diff-file" aria-label={path}>
            <header>
              <strong className="place">{path}</strong>
              {edit?.before === null && <span className="state state-good">new file</span>}
              <span className="soft">{edit?.rules.join(', ')}</span>
            </header>
            <pre tabIndex={0}>
              {body
                .filter((line, index) => line !== '' || index < body.length - 1)
                .map((line, index) => (
                  <span key={index} className={kindOf(line)}>
                    {line || ' '}
                  </span>
                ))}
            </pre>
          </div>
        );
      })}
    </>
  );
}

function kindOf(line: string): string {
  if (line.startsWith('@@')) return 'hunk';
  if (line.startsWith('+')) return 'add';
  return line.startsWith('-') ? 'take' : '';
}
