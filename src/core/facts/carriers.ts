/** What carries an ID, as a phrase for people. */
export const carrierText = {
  manifest: 'in the manifest',
  'property-list': 'in the property list',
  'plugin-entry': 'in the plugin entry',
  'settings-asset': 'in the settings asset',
  'build-step': 'in a build step',
  code: 'in code',
  placebook: 'in the placebook',
  resource: 'in a resource',
  'build-config': 'in the build config',
  layout: 'in a layout',
  storyboard: 'in a storyboard',
  document: 'in a document',
} as const;
