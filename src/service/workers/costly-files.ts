import type { CostlyFile } from '../../core/tree/tree.js';

/** After this many milliseconds a file is tried again: the machine may have been busy with something else. */
const memory = 10 * 60_000;
const maxFiles = 10_000;

/** Files whose reading was aborted, by the hash of their contents. */
export class CostlyFiles {
  readonly #files = new Map<string, { how: CostlyFile; at: number }>();

  /** Records a file whose reading was aborted. If it was not even parsed at that time, it is not read any more. */
  note(hash: string, now: number): CostlyFile {
    const how = this.at(hash, now) === undefined ? 'without-syntax' : 'not-at-all';
    this.#files.delete(hash);
    this.#files.set(hash, { how, at: now });
    for (const oldest of this.#files.keys()) {
      if (this.#files.size <= maxFiles) break;
      this.#files.delete(oldest);
    }
    return how;
  }

  /** Those among some files that are costly. */
  among(files: readonly { hash: string }[], now: number): Map<string, CostlyFile> {
    return new Map(
      files.flatMap(({ hash }) => {
        const how = this.at(hash, now);
        return how ? [[hash, how] as const] : [];
      }),
    );
  }

  private at(hash: string, now: number): CostlyFile | undefined {
    const found = this.#files.get(hash);
    return found && now - found.at < memory ? found.how : undefined;
  }
}
