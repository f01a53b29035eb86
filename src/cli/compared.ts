import type { Compared } from '../core/words/words.js';
import { CommandError, exit } from './io.js';

/** The comparison that a command was asked to make, and how it ended. */
interface Asked {
  compared: Compared | undefined;
  title: string | null;
  directory: string;
  /** Whether the tree alone is enough; left out where a command has no such option. */
  anyTitle?: boolean;
}

/**
 * Ends a command with 2 when nothing was compared, whatever was printed: a run that finds nothing because it looked at
 * nothing must not pass.
 * @throws CommandError
 */
export function demandCompared({ compared, title, directory, anyTitle }: Asked): void {
  if (compared === undefined || compared === 'title' || anyTitle) return;
  const named = title ?? 'TITLE';
  const alone = anyTitle === undefined ? '' : ' To check the tree alone: --any-title.';
  const faults: Record<Exclude<Compared, 'title'>, [message: string, fix: string]> = {
    'no-title': [
      `No title in the roster has the identifiers of ${directory}, so nothing was compared.`,
      `Name the title with --title.${alone}`,
    ],
    'no-networks': [
      `${named} uses no network, so nothing was compared.`,
      `Give it IDs (syndexa id set ${named} ID --network NETWORK --platform PLATFORM) or import a roster.${alone}`,
    ],
    'no-edition': [
      `No app of ${named} was found in ${directory}, so nothing was compared.`,
      `Name the folder of the app, or correct the identifiers: syndexa title show ${named}.${alone}`,
    ],
  };
  const [message, fix] = faults[compared];
  throw new CommandError(message, exit.wrongUse, fix);
}
