/** The letters of code and prose, the most common first; what is not among them is rarer still. */
const common = ' etaoinsrlcdpmhugfybvwkxjzq';

/** How rare a byte is: the greater, the rarer. */
function rarity(byte: number): number {
  const at = common.indexOf(String.fromCharCode(byte));
  return at < 0 ? common.length : at;
}

interface Needle {
  bytes: Buffer;
  /** Where in it the window begins by which it is found. */
  from: number;
}

/**
 * Looks for many texts at once in the bytes of a file, in one pass that skips most of them: by the two bytes at the end
 * of a window, a table tells how far the window can move (S. Wu, U. Manber, "A fast algorithm for multi-pattern
 * searching", 1994). Of every text that window is taken whose end is rarest.
 */
export class Needles {
  private readonly width: number;
  private readonly moves = new Uint8Array(1 << 16);
  private readonly endingWith = new Map<number, Needle[]>();
  private readonly single: number[] = [];

  /** @param texts looked for as UTF-8; none of them is found nowhere */
  constructor(texts: readonly string[]) {
    const all = texts.map((text) => Buffer.from(text)).filter(({ length }) => length > 0);
    this.single = all.flatMap((bytes) => (bytes.length === 1 ? [...bytes] : []));
    const longer = all.filter(({ length }) => length > 1);
    this.width = Math.min(8, ...longer.map(({ length }) => length));
    this.moves.fill(this.width - 1);
    for (const bytes of longer) this.add(bytes);
  }

  private add(bytes: Buffer): void {
    const { width, moves } = this;
    const endAt = (from: number) => pairAt(bytes, from + width - 2);
    let from = 0;
    for (let other = 1; other + width <= bytes.length; other++)
      if (rarityOf(endAt(other)) > rarityOf(endAt(from))) from = other;
    for (let at = 0; at < width - 1; at++) {
      const pair = pairAt(bytes, from + at);
      moves[pair] = Math.min(moves[pair] ?? 0, width - 2 - at);
    }
    const end = endAt(from);
    this.endingWith.set(end, [...(this.endingWith.get(end) ?? []), { bytes, from }]);
  }

  /** Whether one of the texts is in the bytes. */
  standIn(bytes: Buffer): boolean {
    if (this.single.some((byte) => bytes.includes(byte))) return true;
    if (this.endingWith.size === 0) return false;
    const { moves, width } = this;
    const last = bytes.length - 1;
    for (let at = width - 2; at < last;) {
      const pair = pairAt(bytes, at);
      const move = moves[pair] ?? 1;
      if (move === 0 && this.matches(bytes, at - width + 2, pair)) return true;
      at += move === 0 ? 1 : move;
    }
    return false;
  }

  private matches(bytes: Buffer, window: number, pair: number): boolean {
    for (const needle of this.endingWith.get(pair) ?? []) {
      const start = window - needle.from;
      if (start >= 0 && isNeedleAt(bytes, needle.bytes, start)) return true;
    }
    return false;
  }
}

function pairAt(bytes: Buffer, at: number): number {
  return (bytes[at] ?? 0) | ((bytes[at + 1] ?? 0) << 8);
}

function rarityOf(pair: number): number {
  return rarity(pair & 0xff) + rarity(pair >> 8);
}

function isNeedleAt(bytes: Buffer, needle: Buffer, start: number): boolean {
  if (start + needle.length > bytes.length) return false;
  for (let at = 0; at < needle.length; at++) if (bytes[start + at] !== needle[at]) return false;
  return true;
}
