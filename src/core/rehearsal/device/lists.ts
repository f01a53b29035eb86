import { listRows } from '../../languages/common/list-rows.js';
import type { AppCall } from '../app/model.js';
import type { Loading } from './loading.js';
import { note, type DeviceState, type SlotState } from './state.js';

/** The number of items in a rehearsed list, and of rows that are visible at once. */
const listItems = 200;
const visibleRows = 7;
/** Scrolling takes so long for each row (ms). */
const timePerRow = 100;

/** Lists of content with ads: rows come into view, and their code asks for ads. */
export class Lists {
  /** The row that the list on the screen is scrolled to. */
  private scrolled = 0;

  constructor(
    private readonly device: DeviceState,
    private readonly loading: Loading,
  ) {}

  /** A screen is opened: the first rows are seen. */
  open(slots: readonly SlotState[]): void {
    this.scrolled = 0;
    for (const state of slots) for (const row of adRows(state, 0, visibleRows)) this.bind(state, row);
  }

  scroll(slots: readonly SlotState[], rows: number): void {
    const { session, visit } = this.device;
    const from = this.scrolled + visibleRows;
    this.scrolled += rows;
    session.emit('scroll', { row: this.scrolled });
    for (const state of slots)
      for (const row of adRows(state, from, rows))
        session.later((row - from) * timePerRow, () => {
          if (this.device.visit === visit) this.bind(state, row);
        });
  }

  /** A loop loads the ads of all rows. */
  loadAll(state: SlotState, call: AppCall, because: string): void {
    for (const row of rowsOfAds(state)) this.loading.load(state, { because, call, row });
  }

  /** The code of a row asks for an ad; the row may still have that of another. */
  private bind(state: SlotState, row: number): void {
    note(this.device, state, 'row-bound', { row });
    if (state.rowAd !== null && state.slot.release === 'missing')
      note(this.device, state, 'row-reused', { row, ad: state.rowAd });
    this.loading.load(state, { because: 'row', call: state.slot.load, row });
  }
}

/** Rows of ads that come into view, where the code of rows loads them. */
function adRows(state: SlotState, from: number, count: number): number[] {
  if (state.slot.format !== 'native' || !state.slot.load?.triggers.includes('row')) return [];
  return rowsOfAds(state).filter((row) => row >= from && row < from + count);
}

function rowsOfAds({ slot }: SlotState): number[] {
  return listRows(slot.settings, listItems).flatMap((row, index) => (row === 'ad' ? [index] : []));
}
