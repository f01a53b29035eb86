/** Gives a whole number from 0 up to, not including, `below`. */
export type Draw = (below: number) => number;

/** Numbers that repeat with their seed (mulberry32). */
export function seeded(seed: number): Draw {
  let state = seed >>> 0;
  return (below) => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) % below;
  };
}
