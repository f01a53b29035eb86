import type { Compared } from '../core/words/words.js';
import { CommandError, exit } from './io.js';

/** The comparison that a command was asked to make, and how it ended. */
interface Asked {
  compared: Compared | undefined;
  title: string | null;
  directory: string;
  anyTitle: boolean;
}

/**
 * Ends a command with 2 when nothing was compared, whatever was printed: a run that finds nothing because it looked at
 * nothing must not pass.
 * @throws CommandError
 */
export function demandCompared({ compared, title, directory, anyTitle }: Asked): void {
  if (compared === undefined || compared === 'title' || anyTitle) return;
  const named = title ?? 'TITLE';
  const faults: Record<Exclude<Compared, 'title'>, [message: string, fix: string]> = {
    'no-title': [
      `No title in the roster has the identifiers of ${directory}, so nothing was compared.`,
      'Name the title with --title, or check the tree alone with --any-title.',
    ],
    'no-networks': [
      `${named} uses no network, so nothing was compared.`,
      `Give it IDs (syndexa id set ${named} ID --network NETWORK --platform PLATFORM) or import a roster, or check the tree alone with --any-title.`,
    ],
    'no-edition': [
      `No app of ${named} was found in ${directory}, so nothing was compared.`,
      `Name the folder of the app, or correct the identifiers: syndexa title show ${named}. To check the tree alone: --any-title.`,
    ],
  };
  const [message, fix] = faults[compared];
  throw new CommandError(message, exit.wrongUse, fix);
}
