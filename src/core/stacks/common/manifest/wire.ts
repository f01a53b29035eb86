import { joined } from '../joined.js';
import type { StackWiring } from '../../stack.js';
import { wireComponents } from './components.js';
import { wireDirectives } from './directive-wiring.js';
import { wireMetaData } from './meta-data-entries.js';
import type { ManifestWireContext } from './model.js';
import { wirePermissions } from './permissions.js';

/** What enrolled networks need in a manifest beside the app ID and the application class. */
export function wireManifest(context: ManifestWireContext): StackWiring {
  return joined([
    wirePermissions(context),
    wireComponents(context),
    wireMetaData(context),
    wireDirectives(context),
  ]);
}
