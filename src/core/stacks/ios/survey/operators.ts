/**
 * Applies an operator of a build setting reference, `$(NAME:operator)`. Undefined for one that is not known.
 * Source: Apple, "Build settings reference", and the operators that `xcodebuild` takes in property lists.
 */
export function applyOperator(value: string, operator: string): string | undefined {
  const [name = operator, argument] = operator.split('=');
  switch (name) {
    case 'default':
      return value === '' ? (argument ?? '') : value;
    case 'lower':
      return value.toLowerCase();
    case 'upper':
      return value.toUpperCase();
    case 'rfc1034identifier':
      return value.replace(/[^A-Za-z0-9.-]/g, '-');
    case 'c99extidentifier':
    case 'identifier':
      return value.replace(/[^A-Za-z0-9_]/g, '_');
    case 'quote':
      return value.replace(/([\s'"\\])/g, '\\$1');
    case 'base':
      return fileOf(value).replace(/\.[^.]*$/, '');
    case 'suffix':
      return /\.[^.]*$/.exec(fileOf(value))?.[0] ?? '';
    case 'file':
      return fileOf(value);
    case 'dir':
      return value.includes('/') ? value.slice(0, value.lastIndexOf('/')) : '.';
    case 'standardizepath':
      return value.replace(/\/+/g, '/').replace(/(?<=.)\/$/, '');
    default:
      return undefined;
  }
}

function fileOf(path: string): string {
  return path.slice(path.lastIndexOf('/') + 1);
}
