import { callSiteChanges } from '../../common/call-sites.js';
import type { StackWiring } from '../../stack.js';
import { sourceHome } from '../survey/sources.js';
import type { IosWireContext } from './context.js';

/** IDs in Swift or Objective-C become references to the placebook: only on request. */
export function wireCallSites({ tree, model, title, profiles, survey, extras }: IosWireContext): StackWiring {
  const home = sourceHome(model);
  if (!extras.callSites || !home) return { changes: [], byHand: [] };
  return {
    changes: callSiteChanges({
      tree,
      platform: 'ios',
      module: model.module,
      facts: survey.facts,
      title,
      profiles,
      languages: [home.language],
    }),
    byHand: [],
  };
}
