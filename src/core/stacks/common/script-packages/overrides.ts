import { jsonValue, nodesAt, readJson } from '../../../formats/json/read.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import type { SharedFact } from '../package-facts.js';

/** Where package managers take versions from over what is declared: npm and bun, Yarn, pnpm. */
const sections = [['overrides'], ['resolutions'], ['pnpm', 'overrides']];

/**
 * The versions that a `package.json` forces for a package, whatever is declared.
 *
 * Sources: docs.npmjs.com "package.json", overrides; yarnpkg.com "Selective dependency resolutions"; pnpm.io "overrides".
 */
export function overrideFacts(tree: Tree, path: string, packageName: string, network: string): SharedFact[] {
  const root = tree.read(path, readJson)?.root ?? null;
  const document = tree.text(path);
  return sections.flatMap((way) =>
    nodesAt(root, way).flatMap((section) =>
      (section.children ?? []).flatMap((entry): SharedFact[] => {
        const [key, value] = entry.children ?? [];
        if (!key || value?.type !== 'string' || packageOf(String(jsonValue(key))) !== packageName) return [];
        const place = placeAt(path, document, {
          start: entry.offset,
          end: entry.offset + entry.length,
        });
        const said = String(jsonValue(value));
        const by = way.join('.');
        const chain = [{ what: by, value: said, place }];
        const version = said.replace(/^(npm:.*@)?[\^~=v]*/, '');
        return [
          {
            kind: 'forced-version',
            network,
            name: packageName,
            value: version,
            by,
            effective: true,
            place,
            chain,
          },
        ];
      }),
    ),
  );
}

/** The package that an entry is about; a path of packages or of globs may be before it, a range behind it. */
function packageOf(key: string): string {
  const last =
    key
      .split('>')
      .at(-1)
      ?.replace(/^(.*\*\*?\/)/, '') ?? key;
  return last.replace(/(?<=.)@.*$/, '');
}
