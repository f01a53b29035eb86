import type { Unresolved } from '../../../facts/model.js';
import type { AndroidWireContext } from './context.js';

/** What may bring an SDK without a word that can be read: adding it beside that would declare it twice. */
export function unreadScript({ survey, edition }: AndroidWireContext): Unresolved | undefined {
  return survey.unresolved.find(
    ({ cause, module }) => cause === 'unread-script' && module === edition.module,
  );
}
