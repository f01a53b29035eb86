import { groupBy } from '../../text/group-by.js';
import type { AppCall, Trigger } from '../app/model.js';
import type { SlotState } from './state.js';

/** A call of an app, with the slot that it is about. */
export interface SlotCall {
  state: SlotState;
  call: AppCall;
  does: 'load' | 'show';
}

/** The calls of an app by where they belong, in the order in which they stand. */
export class Calls {
  readonly #byScreen: ReadonlyMap<string | null, readonly SlotCall[]>;
  readonly #slots: ReadonlyMap<string, readonly SlotState[]>;

  constructor(slots: readonly SlotState[]) {
    const all = slots.flatMap((state): SlotCall[] => {
      const { load, show } = state.slot;
      return [
        ...(load ? [{ state, call: load, does: 'load' as const }] : []),
        ...(show ? [{ state, call: show, does: 'show' as const }] : []),
      ];
    });
    all.sort((a, b) => a.call.order - b.call.order);
    this.#byScreen = groupBy(all, ({ call }) => (call.isOfApp ? null : call.screen));
    const loaded = slots.filter(({ slot }) => slot.load && !slot.load.isOfApp);
    this.#slots = groupBy(loaded, ({ slot }) => slot.screen);
  }

  /** What something makes run on a screen, or in the application itself (null); with what makes it run. */
  triggered(screen: string | null, triggers: readonly Trigger[]): (SlotCall & { because: Trigger })[] {
    return (this.#byScreen.get(screen) ?? []).flatMap((one) => {
      const because = triggers.find((trigger) => one.call.triggers.includes(trigger));
      return because ? [{ ...one, because }] : [];
    });
  }

  /** The slots whose ads a screen loads. */
  slotsOn(screen: string | null): readonly SlotState[] {
    return (screen === null ? undefined : this.#slots.get(screen)) ?? [];
  }
}
