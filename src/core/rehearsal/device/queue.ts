/** What is to happen at a virtual time. Things of one time happen in the order in which they were planned. */
interface Due {
  at: number;
  turn: number;
  run: () => void;
}

/** A queue by time: a binary heap, so that a day of many placements stays quick. */
export class EventQueue {
  readonly #heap: Due[] = [];
  #turn = 0;

  add(at: number, run: () => void): void {
    const heap = this.#heap;
    const due = { at, turn: this.#turn++, run };
    let index = heap.push(due) - 1;
    while (index > 0) {
      const parent = (index - 1) >> 1;
      const above = heap[parent];
      if (!above || !isBefore(due, above)) break;
      heap[index] = above;
      index = parent;
    }
    heap[index] = due;
  }

  /** Takes what comes next. */
  take(): Due | undefined {
    const heap = this.#heap;
    const [first] = heap;
    const last = heap.pop();
    if (!first || !last || heap.length === 0) return first;
    let index = 0;
    for (;;) {
      let child = 2 * index + 1;
      const [left, right] = [heap[child], heap[child + 1]];
      if (!left) break;
      if (right && isBefore(right, left)) child++;
      const smaller = heap[child];
      if (!smaller || !isBefore(smaller, last)) break;
      heap[index] = smaller;
      index = child;
    }
    heap[index] = last;
    return first;
  }
}

const isBefore = (one: Due, other: Due): boolean =>
  one.at < other.at || (one.at === other.at && one.turn < other.turn);
