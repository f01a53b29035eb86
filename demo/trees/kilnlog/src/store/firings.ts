import { useState } from 'react';

/** A firing: what was in the kiln, and how hot it got. */
export interface Firing {
  id: number;
  name: string;
  /** The cone that fell last. */
  cone: string;
}

const sample: Firing[] = [
  { id: 1, name: 'Bisque, twelve bowls', cone: '06' },
  { id: 2, name: 'Celadon tiles', cone: '9' },
];

let ads = 0;

/** Counts what was shown, for the page about the app. */
export const countAd = () => {
  ads += 1;
};

export const adsSoFar = () => ads;

export function useFirings(): Firing[] {
  const [firings] = useState(sample);
  return firings;
}
