import type { Profile } from '../../../network/model.js';
import { othersNeedOn } from '../../common/others-need.js';
import type { UnwireContext } from '../../stack.js';
import type { AndroidWireContext } from '../wire/context.js';

/** The input of each part of removing a network. */
export interface AndroidUnwireContext extends UnwireContext, Omit<AndroidWireContext, keyof UnwireContext> {}

/** Whether another network of the title, in this edition, asks for the same. */
export function othersNeed(context: AndroidUnwireContext, asks: (profile: Profile) => boolean): boolean {
  return othersNeedOn(context, 'android', asks);
}
