/** The forms of version requirements: `^1.2.3`, `~1.2.3`, or exactly. */
type VersionForm = '^' | '~' | '';

const plain = /^([\^~]?)\d+(?:\.\d+){0,3}(?:[-+][\w.+-]+)?$/;

/** The form of a version; undefined where it is written in another way, such as a range or an address. */
function formOf(version: string): VersionForm | undefined {
  const form = plain.exec(version.trim())?.[1];
  return form as VersionForm | undefined;
}

/**
 * The form that all plain versions of a list have, so that one more can be written like them; `^` where they differ.
 */
export function sharedForm(versions: readonly string[]): VersionForm {
  const forms = new Set(versions.map(formOf).filter((form) => form !== undefined));
  const [only = '^'] = forms;
  return forms.size === 1 ? only : '^';
}

/** A newer version in the form that an older one was written in. */
export function inFormOf(written: string, version: string): string {
  return `${formOf(written) ?? '^'}${version}`;
}
