import { camelCase, pascalCase, upperCase } from './model.js';
import { appName } from './objective-c.js';

/** The languages in which placebooks are written. */
export type PlacebookLanguage =
  'kotlin' | 'java' | 'swift' | 'objective-c' | 'dart' | 'typescript' | 'csharp';

/** How code of a language names the unit ID of a placement on a network. */
export function unitReference(language: PlacebookLanguage, placement: string, network: string): string {
  switch (language) {
    case 'kotlin':
      return `Placebook.${camelCase(placement)}.unit(Placebook.Network.${upperCase(network)})`;
    case 'java':
      return `Placebook.${upperCase(placement)}.unit(Placebook.Network.${upperCase(network)})`;
    case 'swift':
      return `Placebook.${camelCase(placement)}.unit(.${camelCase(network)})`;
    case 'dart':
    case 'typescript':
      return `Placebook.${camelCase(placement)}.unit(PlacebookNetwork.${camelCase(network)})`;
    case 'csharp':
      return `Placebook.${pascalCase(placement)}.Unit(PlacebookNetwork.${pascalCase(network)})`;
    case 'objective-c':
      return `[Placebook.${camelCase(placement)} unitFor:PlacebookNetwork${pascalCase(network)}]`;
  }
}

/** How code of a language names the app ID that a network takes in its start-up call. */
export function appReference(language: PlacebookLanguage, network: string): string {
  switch (language) {
    case 'kotlin':
    case 'java':
      return `Placebook.Apps.${upperCase(network)}`;
    case 'swift':
      return `Placebook.Apps.${camelCase(network)}`;
    case 'dart':
    case 'typescript':
      return `PlacebookApps.${camelCase(network)}`;
    case 'csharp':
      return `PlacebookApps.${pascalCase(network)}`;
    case 'objective-c':
      return `Placebook.${appName(network)}`;
  }
}
