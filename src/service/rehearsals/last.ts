import type { LastRehearsals } from '../../core/board/rehearsed.js';
import type { ServiceContext } from '../context.js';

/**
 * What was rehearsed last of each edition of a title. The same files under another name are the same tree: a folder that
 * the client sent, and that is linked.
 */
export function lastRehearsals(
  { steps, trees }: Pick<ServiceContext, 'steps' | 'trees'>,
  title: string,
): LastRehearsals {
  const readings = trees.readings(title);
  return Object.fromEntries(
    Object.entries(steps.rehearsals(title)).map(([platform, last]) => {
      const reading = readings.find((one) => one.platform === platform);
      const isSame = reading && trees.holdSameFiles(reading.snapshot, last.snapshot);
      return [platform, isSame ? { ...last, snapshot: reading.snapshot } : last];
    }),
  );
}
