import type { NetworkPlan } from '../api/networks.js';
import { readProfile } from '../core/network/read.js';
import { misfitsOf, type Misfit } from '../core/roster/misfits.js';
import type { Profile } from '../core/network/model.js';
import { isUsedBy } from '../core/roster/used.js';
import { unifiedPatch } from '../core/text/patch.js';
import type { ServiceContext } from './context.js';
import { faultsOf, ServiceError } from './errors.js';
import type { LoadedProfile } from './profiles.js';

/** Changes of the profiles that are known: what they would do to the record is looked at first. */
export class NetworkWork {
  constructor(private readonly context: ServiceContext) {}

  /** What keeping a profile would change: the profile that it replaces, and what on record would not match it. */
  plan(text: string): NetworkPlan {
    const { profile } = this.read(text);
    const known = this.context.profiles.find(profile.id);
    const patch = known
      ? unifiedPatch([{ path: `${profile.id}.yaml`, before: known.source, after: text }])
      : '';
    return {
      id: profile.id,
      name: profile.name,
      replaces: known ? (known.shipped ? 'shipped' : 'own') : 'nothing',
      patch,
      misfits: this.misfits(profile).map(told),
    };
  }

  /** Keeps a profile. Refused where IDs on record do not fit it, unless the caller knows. */
  add(text: string, despite: boolean): LoadedProfile {
    const { profile } = this.read(text);
    const misfits = despite ? [] : this.misfits(profile);
    if (misfits.length > 0)
      throw new ServiceError('invalid', `${profile.name} does not match IDs in the roster.`, {
        errors: misfits.map(({ title, ...problem }) => ({
          ...problem,
          field: `titles.${title}.${problem.field}`,
        })),
        fix: 'Correct the pattern, or the IDs. To add the profile anyway, send despite.',
      });
    return this.context.profiles.add(profile, text);
  }

  /** Forgets a profile of one's own; where one of the same name ships, that one is known again. */
  remove(id: string): { restored: boolean } {
    const { profiles, roster } = this.context;
    if (profiles.get(id).shipped)
      throw new ServiceError('invalid', `The profile of ${id} is built in.`, {
        fix: 'Leave it: a network that no title uses has no effect.',
      });
    const under = profiles.shippedUnder(id);
    const { titles } = roster.roster();
    const using = Object.entries(titles).flatMap(([title, one]) => (isUsedBy(one, id) ? [title] : []));
    if (!under && using.length > 0)
      throw new ServiceError('invalid', `${using.join(', ')} ${using.length === 1 ? 'uses' : 'use'} ${id}.`, {
        errors: using.map((title) => ({
          field: `titles.${title}.networks.${id}`,
          message: 'The title uses the network.',
        })),
        fix: `Take it out of their trees and titles first: syndexa unwire ${id} DIR, then syndexa title set TITLE --leave ${id}.`,
      });
    profiles.remove(id);
    return { restored: under };
  }

  private read(text: string): { profile: Profile } {
    const { profile, problems } = readProfile(text);
    if (profile) return { profile };
    throw new ServiceError('invalid', 'The profile is invalid.', {
      errors: faultsOf(problems),
      fix: 'Correct the fields named here; syndexa network lint FILE shows them with their lines.',
    });
  }

  private misfits(profile: Profile): Misfit[] {
    const before = this.context.profiles.profiles();
    const after = [...before.filter(({ id }) => id !== profile.id), profile];
    return misfitsOf(this.context.roster.roster(), before, after);
  }
}

function told({ title, field, message, fix }: Misfit): NetworkPlan['misfits'][number] {
  return { title, field, message, ...(fix === undefined ? {} : { fix }) };
}
