import { useLongCall } from '../long-call.js';

/** Reads a folder below the roots of the service; long ones report how far they are, and can be cancelled. */
export function useReading() {
  const opening = useLongCall('openFolder');
  return {
    ...opening,
    /** @returns the snapshot; undefined when it was cancelled, or failed */
    read: async (path: string, needles: readonly string[] = []) =>
      (await opening.run({ body: { path, needles: [...needles] } }))?.snapshot,
  };
}
