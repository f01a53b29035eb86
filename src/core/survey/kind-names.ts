import type { FactKind } from './model.js';

/** What facts are called, for people. */
export const kindNames: Record<FactKind, string> = {
  identifier: 'identifier',
  'min-sdk': 'minSdk',
  'compile-sdk': 'compileSdk',
  'target-sdk': 'targetSdk',
  'deployment-target': 'deployment target',
  'app-id': 'app ID',
  'unit-id': 'unit ID',
  permission: 'permission',
  dependency: 'dependency',
  'plist-key': 'key',
  'attribution-id': 'attribution ID',
  companion: 'companion file',
  repository: 'repository',
  call: 'call',
  'placement-use': 'placement',
};
