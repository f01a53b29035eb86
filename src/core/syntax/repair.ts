/** A faulty sequence in a grammar's code, and its replacement. */
interface Repair {
  wrong: readonly number[];
  right: readonly number[];
}

/**
 * The scanner of the Swift grammar stores a count between tokens, but allocates no memory for it: `calloc(0, 4)`. It
 * starts with leftovers of the heap, so that raw strings are read wrongly after another file was parsed, and a broken
 * file takes minutes. It needs one element: `calloc(1, 4)`.
 */
const swift: Repair = {
  //       size, locals, i32.const 0, i32.const 4, call 0, end
  wrong: [0x08, 0x00, 0x41, 0x00, 0x41, 0x04, 0x10, 0x00, 0x0b],
  right: [0x08, 0x00, 0x41, 0x01, 0x41, 0x04, 0x10, 0x00, 0x0b],
};

const repairs = new Map<string, Repair>([['swift', swift]]);

/** The bytes of a grammar, repaired where its release has a known fault; as they are where the fault is not found. */
export function repaired(grammar: string, bytes: Uint8Array): Uint8Array {
  const repair = repairs.get(grammar);
  const at = repair ? onlyPlaceOf(bytes, repair.wrong) : undefined;
  if (!repair || at === undefined) return bytes;
  const copy = Uint8Array.from(bytes);
  copy.set(repair.right, at);
  return copy;
}

/** The offset of a byte sequence, if it occurs exactly once. */
function onlyPlaceOf(bytes: Uint8Array, wanted: readonly number[]): number | undefined {
  const [first = 0] = wanted;
  const places: number[] = [];
  for (let at = bytes.indexOf(first); at >= 0; at = bytes.indexOf(first, at + 1))
    if (wanted.every((byte, index) => bytes[at + index] === byte)) places.push(at);
  return places.length === 1 ? places[0] : undefined;
}
