import { isIneffective, type Effective } from '../facts/effective.js';

/** Whether a companion file lies where the build looks, built into the application or not. */
export function isInItsFolder({ effective = true }: { effective?: Effective | undefined }): boolean {
  return effective === true || isIneffective({ effective }, 'outside-target');
}
