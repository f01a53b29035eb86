import { insertAfter, insertBefore } from '../../../formats/xml/edit.js';
import { elements, prefixOf } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { ByHand, Change } from '../../../edits/model.js';
import type { StackWiring } from '../../stack.js';
import { toldAttributes, toolsEditsFor, toolsMarksFor } from './directive-wiring.js';
import { declares, lackingIn, removalSteps } from './removed.js';
import { androidNamespace } from './namespaces.js';
import type { ManifestWireContext } from './model.js';

/** Permissions that enrolled networks need and some variant lacks, added to the main manifest. */
export function wirePermissions(context: ManifestWireContext): StackWiring {
  const { tree, manifest: path, title, profiles, survey, edition } = context;
  const document = tree.text(path);
  const root = tree.read(path, readXml)?.root;
  if (!document || !root?.attributes.some(({ value }) => value === androidNamespace))
    return { changes: [], byHand: [] };
  const granted = (name: string) =>
    survey.facts.filter(
      (fact) => fact.kind === 'permission' && fact.name === name && fact.module === edition.module,
    );
  const byHand: ByHand[] = [];
  const prefix = prefixOf(root, androidNamespace, 'android');
  const last = elements(root, 'uses-permission').at(-1);
  const application = elements(root, 'application')[0];
  const done = new Set<string>();
  const changes: Change[] = [];
  for (const profile of profiles.filter(({ id }) => isEnrolled(title, id, 'android'))) {
    for (const { name } of profile.android?.permissions ?? []) {
      const { isLacking, removals } = lackingIn(edition.variants, granted(name));
      byHand.push(...removalSteps(profile, 'manifest/permission-missing', removals));
      if (done.has(name) || !isLacking || declares(root, root, 'uses-permission', name)) continue;
      done.add(name);
      const about = { element: 'uses-permission' as const, name };
      const told = toldAttributes(profile, about, root).map((attribute) => ` ${attribute}`);
      const lines = [`<uses-permission ${prefix}:name="${name}"${told.join('')} />`];
      const edit = last
        ? insertAfter(document.text, last, lines, document.lineEnd)
        : application && insertBefore(document.text, application, lines, document.lineEnd);
      if (edit)
        changes.push({
          path,
          platform: 'android',
          network: profile.id,
          topic: 'permissions',
          adds: [`permission ${name}`, ...toolsMarksFor(profile, about, root)],
          rules: ['manifest/permission-missing'],
          kind: 'edit',
          edits: [...toolsEditsFor(profile, about, root, document.text), edit],
        });
    }
  }
  return { changes, byHand };
}
