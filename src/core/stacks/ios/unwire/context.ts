import { needsPlacebook, placebookProfiles } from '../../../placebook/contents.js';
import type { Profile } from '../../../network/model.js';
import { othersNeedOn } from '../../common/others-need.js';
import type { UnwireContext } from '../../stack.js';
import type { IosWireContext } from '../wire/context.js';
import { existingPlacebooks } from '../wire/placebook.js';

/** The input of each part of removing a network. */
export interface IosUnwireContext extends UnwireContext, Omit<IosWireContext, keyof UnwireContext> {}

/** Whether another network of the title, in this edition, asks for the same. */
export function othersNeed(context: IosUnwireContext, asks: (profile: Profile) => boolean): boolean {
  return othersNeedOn(context, 'ios', asks);
}

/** Whether the existing placebook is still needed by the remaining networks. */
export function staysNeeded({ tree, model, rest, allProfiles }: IosUnwireContext): boolean {
  const texts = existingPlacebooks(tree, model).map((path) => tree.text(path)?.text ?? '');
  return needsPlacebook(rest, placebookProfiles(allProfiles, [], texts), 'ios');
}
