import type { Format } from '../network/model.js';

/** Stands near the top of every placebook; a file that bears it is Syndexa's to write again. */
export const placebookMark = 'Placebook written by Syndexa';

/** A placement as app code will name it. */
export interface PlacebookPlacement {
  /** The placement's name in the roster, such as `tide-list-footer`. */
  name: string;
  format: Format;
  where?: string;
  /** Unit ID per network, for the stage that the file (or its branch) is for. */
  units: Record<string, string>;
}

/** What one placebook says for one stage. */
export interface PlacebookStage {
  /** App IDs of the networks that take them in code. */
  apps: Record<string, string>;
  placements: PlacebookPlacement[];
}

/** `tide-list-footer` as `tideListFooter`. */
export function camelCase(name: string): string {
  return name.replace(/-([a-z0-9])/g, (_, letter: string) => letter.toUpperCase());
}

/** `tide-list-footer` as `TideListFooter`. */
export function pascalCase(name: string): string {
  const camel = camelCase(name);
  return camel.charAt(0).toUpperCase() + camel.slice(1);
}

/** `tide-list-footer` as `TIDE_LIST_FOOTER`. */
export function upperCase(name: string): string {
  return name.replace(/-/g, '_').toUpperCase();
}
