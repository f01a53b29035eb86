import { lockFiles } from '../formats/package-json/locks.js';
import { valueAt } from '../text/own-values.js';

/** What brings a lock file up to date, by the name of the file, for tools other than those of JavaScript. */
const commands = new Map([
  ['Podfile.lock', 'pod install'],
  ['pubspec.lock', 'flutter pub get'],
  ['packages.lock.json', 'dotnet restore'],
  ['packages-lock.json', 'Unity once, so that it resolves the packages,'],
  ['Package.resolved', 'File › Packages › Resolve Package Versions in Xcode'],
]);

/** What brings a lock file up to date, in the words of its tool; `npm install` where there is no lock of a script yet. */
export function installCommand(lock: string): string {
  return commands.get(lock) ?? valueAt(lockFiles, lock)?.install ?? 'npm install';
}
