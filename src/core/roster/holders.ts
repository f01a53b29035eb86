import type { Title } from './model.js';
import { heldIds, type FindHolder, type OwnedId } from './validate.js';

/** Who holds which ID, over many titles: kept up to date title by title, so that no search reads them all. */
export class IdHolders {
  /** By network and ID. A title may hold an ID in several places: the last one counts. */
  readonly #holders = new Map<string, OwnedId[]>();
  readonly #ofTitle = new Map<string, string[]>();

  /** The holders of all IDs in some titles. */
  static in(titles: Readonly<Record<string, Title>>): IdHolders {
    const holders = new IdHolders();
    for (const [id, title] of Object.entries(titles)) holders.set(id, title);
    return holders;
  }

  /** Replaces the IDs of a title; null if the title was removed. */
  set(id: string, title: Title | null): void {
    for (const key of this.#ofTitle.get(id) ?? []) {
      const others = this.#holders.get(key)?.filter((holder) => holder.title !== id) ?? [];
      if (others.length > 0) this.#holders.set(key, others);
      else this.#holders.delete(key);
    }
    this.#ofTitle.delete(id);
    if (!title) return;
    const keys = heldIds(title).map((held) => {
      const key = `${held.network} ${held.id}`;
      const holder = { ...held, title: id };
      const holders = this.#holders.get(key);
      if (holders) holders.push(holder);
      else this.#holders.set(key, [holder]);
      return key;
    });
    this.#ofTitle.set(id, keys);
  }

  /** Finds holders of IDs outside one title. */
  outside(title: string): FindHolder {
    return (network, id) =>
      this.#holders.get(`${network} ${id}`)?.findLast((holder) => holder.title !== title);
  }
}
