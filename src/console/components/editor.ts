/** Addresses that open a file in an editor on the same machine. `{path}`, `{line}` and `{column}` are filled in. */
export const editors = [
  ['vscode://file{path}:{line}:{column}', 'VS Code'],
  ['idea://open?file={path}&line={line}&column={column}', 'IntelliJ IDEA or Android Studio'],
  ['xed://open?file={path}&line={line}', 'Xcode'],
] as const;

const key = 'editor';
/** Schemes that run something in this page, or leave it for another page. */
const otherSchemes = /^(javascript|data|vbscript|blob|file|https?|about|ftp|ws|wss):/i;

/** Whether a text is an address that an editor may be opened with. */
export function isEditor(template: string): boolean {
  return (
    /^[a-z][a-z0-9+.-]{1,30}:\/\//i.test(template) &&
    template.includes('{path}') &&
    !otherSchemes.test(template)
  );
}

/** What was chosen in this browser; empty where nothing was. */
export function storedEditor(): string {
  const stored = localStorage.getItem(key) ?? '';
  return isEditor(stored) ? stored : '';
}

/** Keeps the choice in this browser; an empty one is forgotten. */
export function storeEditor(template: string): void {
  if (template === '') localStorage.removeItem(key);
  else localStorage.setItem(key, template);
}

/** The address that opens a place. */
export function editorAddress(
  template: string,
  { path, line, column }: { path: string; line: number; column: number },
): string {
  const escaped = path.split('/').map(encodeURIComponent).join('/');
  return template
    .replaceAll('{path}', () => escaped)
    .replaceAll('{line}', String(line))
    .replaceAll('{column}', String(column));
}
