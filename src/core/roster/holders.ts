import type { Title } from './model.js';
import { heldIds, type FindHolder, type OwnedId } from './validate.js';

/** Who holds which ID, over many titles: kept up to date title by title, so that no search reads them all. */
export class IdHolders {
  /** By network and ID; within, by title. A title may hold an ID in several places: the last one counts. */
  readonly #holders = new Map<string, Map<string, OwnedId>>();
  readonly #ofTitle = new Map<string, string[]>();

  /** Puts in what a title holds now, in place of what it held before; null when the title is gone. */
  set(id: string, title: Title | null): void {
    for (const key of this.#ofTitle.get(id) ?? []) {
      const holders = this.#holders.get(key);
      holders?.delete(id);
      if (holders?.size === 0) this.#holders.delete(key);
    }
    this.#ofTitle.delete(id);
    if (!title) return;
    const keys = heldIds(title).map((held) => {
      const key = `${held.network} ${held.id}`;
      const holders = this.#holders.get(key) ?? new Map<string, OwnedId>();
      holders.set(id, { ...held, title: id });
      this.#holders.set(key, holders);
      return key;
    });
    this.#ofTitle.set(id, keys);
  }

  /** Finds holders of IDs outside one title. */
  outside(title: string): FindHolder {
    return (network, id) => {
      let last: OwnedId | undefined;
      for (const [owner, held] of this.#holders.get(`${network} ${id}`) ?? [])
        if (owner !== title) last = held;
      return last;
    };
  }
}
