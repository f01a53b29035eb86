import { namespaceOf } from '../survey/identifier.js';
import { callSiteChanges } from '../../common/call-sites.js';
import type { StackWiring } from '../../stack.js';
import type { AndroidWireContext } from './context.js';
import { placebookLanguage, existingPlacebooks } from './placebook.js';

/** IDs in Kotlin and Java become references to the placebook: only on request. */
export function wireCallSites(context: AndroidWireContext): StackWiring {
  const { tree, model, title, profiles, survey, extras, sets } = context;
  const namespace = namespaceOf(tree, model)?.value ?? null;
  if (!extras.callSites || namespace === null) return { changes: [], byHand: [] };
  const existing = sets.flatMap(({ sourceSet }) => existingPlacebooks(context, sourceSet))[0];
  const packageName = /^package ([\w.]+);?\s*$/m.exec(existing?.text ?? '')?.[1] ?? `${namespace}.ads`;
  const written = placebookLanguage(context);
  return {
    changes: callSiteChanges({
      tree,
      platform: 'android',
      module: context.edition.module,
      facts: survey.facts,
      title,
      profiles,
      packageName,
      // A placebook in Kotlin is seen from Java by other names, which nobody would guess.
      languages: [written],
    }),
    byHand: [],
  };
}
