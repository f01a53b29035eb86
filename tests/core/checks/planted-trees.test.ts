import { describe, expect, it } from 'vitest';
import { expoWorkspace } from '../../support/planted/expo-workspace.js';
import { flutterWorkspace } from '../../support/planted/flutter-workspace.js';
import { mauiSolution } from '../../support/planted/maui-solution.js';
import { unityGame } from '../../support/planted/unity-game.js';
import { findingsOf, worked } from '../../support/rules.js';
import { asked, holds, plan, text, unplan, written } from '../../support/wiring.js';

const trees = [flutterWorkspace, expoWorkspace, mauiSolution, unityGame];

/** Notes say what could be told, or done better; they are no alarms. */
const alarms = (tree: (typeof trees)[number]) =>
  findingsOf(tree.files, tree.title).filter(({ severity }) => severity !== 'note');

describe.each(trees)('$name', (tree) => {
  const lineOf = (path: string, line: number) => tree.files[path]?.split('\n')[line - 1]?.trim() ?? '';

  it('is told every planted mistake at its line, and nothing else', () => {
    const told = new Set(
      alarms(tree).map(
        ({ rule, place }) => `${rule} ${place?.path}: ${lineOf(place?.path ?? '', place?.line ?? 0)}`,
      ),
    );
    expect([...told].sort()).toEqual(
      tree.wrong.map(([rule, path, line]) => `${rule} ${path}: ${line}`).sort(),
    );
  });

  it('holds what is listed as right', () => {
    for (const [path, text] of tree.right)
      expect([path, tree.files[path]?.includes(text)]).toEqual([path, true]);
  });

  it('keeps the laws of wiring, and has its placebook where all code can refer to it', () => {
    const { after } = holds(tree.files, tree.title, asked({ callSites: true }));
    const isBook = (path: string) => /\/placebook\.\w+$/i.test(path);
    expect(Object.keys(after).filter(isBook)).toEqual([tree.book]);
  });

  it('loses every finding, notes too, to whoever follows the advice: by hand, and by wiring', () => {
    const extras = asked({ callSites: true, levels: true });
    const found = findingsOf(tree.files, tree.title);
    const { remaining } = plan(tree.files, tree.title, extras);
    const left = new Set(remaining.map(({ fingerprint }) => fingerprint));
    // What names a command alone is left to nobody.
    for (const { mend, fingerprint } of found)
      if (/^Run syndexa wire|--call-sites does it/.test(mend))
        expect([mend, left.has(fingerprint)]).toEqual([mend, false]);
    const { after } = holds(worked(tree.files, tree.byHand), tree.title, extras);
    const still = plan(after, tree.title, extras).findings;
    expect(still.map(({ rule, message, place }) => [rule, message, place?.path, place?.line])).toEqual([]);
  });

  it('is rid of a network in all that builds are made from, and says what is left to others', () => {
    const wiring = holds(tree.files, tree.title);
    const added = wiring.plan.edits.flatMap(({ adds }) => adds);
    const out = unplan(wiring.after, tree.title, 'cobalt-heron', added);
    const left = Object.entries(written(wiring.after, out));
    const naming = (paths: RegExp) =>
      left.flatMap(([path, content]) =>
        paths.test(path) && /cobalt.?heron/i.test(text(content)) ? [path] : [],
      );
    const made =
      /(^|\/)(pubspec\.yaml|package\.json|manifest\.json|app\.json|nuget\.config|Podfile|[^/]*\.(csproj|props|kts|pbxproj|plist|xml)|ProjectSettings\.asset)$/;
    expect(naming(made)).toEqual([]);
    const told = out.byHand.map(({ where }) => where?.replace(/:\d+$/, ''));
    for (const path of naming(/lock/)) expect(told).toContain(path);
  });
});
