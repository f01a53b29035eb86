import { seeded } from '../../core/text/seeded.js';
import { hashOf } from './hash.js';

/** Simulated demand: for each unit a sequence of prices, determined by the seed. */
export class Market {
  readonly #asked = new Map<string, number>();
  readonly #fill = new Map<string, number>();
  readonly #latency = new Map<string, number>();

  constructor(private readonly seed: number) {}

  /** The price per thousand impressions (CPM), or null for no bid. */
  offer(network: string, unit: string): number | null {
    const key = `${network} ${unit}`;
    const round = this.#asked.get(key) ?? 0;
    this.#asked.set(key, round + 1);
    const draw = seeded(this.seed + hashOf(`${key} ${round}`));
    if (draw(1000) >= (this.#fill.get(network) ?? 0.92) * 1000) return null;
    return (50 + draw(400)) / 100;
  }

  /** The latency of answers, in milliseconds. */
  latency(network: string): number {
    return this.#latency.get(network) ?? 0;
  }

  /** Sets the fill rate, from 0 to 1, and the latency in milliseconds. */
  set(network: string, { fill, latency }: { fill?: number | undefined; latency?: number | undefined }): void {
    if (fill !== undefined) this.#fill.set(network, fill);
    if (latency !== undefined) this.#latency.set(network, latency);
  }

  reset(): void {
    for (const map of [this.#asked, this.#fill, this.#latency]) map.clear();
  }
}
