import type { Profile } from '../../network/model.js';
import type { Platform } from '../../words/words.js';
import { isEnrolled } from '../../roster/expected.js';
import type { UnwireContext } from '../stack.js';

/** Whether another network of the title, in the edition of a platform, asks for the same. */
export function othersNeedOn(
  { allProfiles, network, rest }: Pick<UnwireContext, 'allProfiles' | 'network' | 'rest'>,
  platform: Platform,
  asks: (profile: Profile) => boolean,
): boolean {
  return allProfiles.some(
    (profile) => profile.id !== network.id && isEnrolled(rest, profile.id, platform) && asks(profile),
  );
}
