import type { XmlElement } from '../xml/model.js';
import type { PlistDocument, PlistEntry, PlistValue } from './read.js';

const magic = 'bplist00';
/** Objects, and levels of nesting, beyond which a list is refused. */
const maxObjects = 100_000;
const maxDepth = 128;

/** Whether bytes announce themselves as a binary property list. */
export function isBinaryPlist(bytes: Uint8Array): boolean {
  return latin(bytes.subarray(0, magic.length)) === magic;
}

/** Why a binary property list cannot be read, and the byte where that shows. */
class BinaryFault extends Error {
  constructor(
    message: string,
    readonly offset: number,
  ) {
    super(message);
  }
}

/**
 * Reads a binary property list (format `bplist00`: objects, a table of their offsets, a trailer of 32 bytes;
 * source: CFBinaryPList.c of Apple's open CoreFoundation). It has no lines, so every place is the whole file,
 * and it cannot be edited as text: the document is marked `binary`.
 */
export function readBinaryPlist(bytes: Uint8Array): PlistDocument {
  try {
    return { root: new BinaryReader(bytes).root(), problems: [], binary: true };
  } catch (error) {
    if (!(error instanceof BinaryFault)) throw error;
    const message = `This binary property list is broken: ${error.message} (byte ${error.offset}).`;
    return { root: null, problems: [{ message, start: 0, end: 0 }], binary: true };
  }
}

class BinaryReader {
  private readonly view: DataView;
  private readonly offsetSize: number;
  private readonly refSize: number;
  private readonly count: number;
  private readonly top: number;
  private readonly table: number;
  private made = 0;

  constructor(private readonly bytes: Uint8Array) {
    this.view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    const trailer = bytes.length - 32;
    if (trailer < magic.length) throw new BinaryFault('it is incomplete', bytes.length);
    this.offsetSize = bytes[trailer + 6] ?? 0;
    this.refSize = bytes[trailer + 7] ?? 0;
    this.count = this.integer(trailer + 8, 8);
    this.top = this.integer(trailer + 16, 8);
    this.table = this.integer(trailer + 24, 8);
    if (![1, 2, 3, 4, 8].includes(this.offsetSize) || ![1, 2, 3, 4, 8].includes(this.refSize))
      throw new BinaryFault('its trailer gives no sizes', trailer + 6);
    if (this.count > maxObjects || this.table + this.count * this.offsetSize > trailer)
      throw new BinaryFault('its object table exceeds the file', trailer + 8);
  }

  root(): PlistValue {
    return this.object(this.top, 0);
  }

  private object(index: number, depth: number): PlistValue {
    if (index >= this.count) throw new BinaryFault(`there is no object ${index}`, this.table);
    if (depth > maxDepth) throw new BinaryFault(`it is nested more than ${maxDepth} deep`, this.table);
    // An object may be referenced many times; the total number of values is limited anyway.
    if (++this.made > maxObjects)
      throw new BinaryFault(`it holds more than ${maxObjects} values`, this.table);
    const at = this.integer(this.table + index * this.offsetSize, this.offsetSize);
    const marker = this.byte(at);
    const low = marker & 0x0f;
    switch (marker >> 4) {
      case 0x0:
        if (marker === 0x08 || marker === 0x09)
          return {
            type: 'boolean',
            value: marker === 0x09,
            element: blank(marker === 0x09 ? 'true' : 'false'),
          };
        throw new BinaryFault(`the marker 0x${marker.toString(16)} is not known`, at);
      case 0x1:
        return this.scalar('integer', String(this.signed(at + 1, 1 << low)));
      case 0x2:
        return this.scalar('real', String(this.real(at + 1, 1 << low)));
      case 0x3:
        return this.scalar('date', this.date(at + 1));
      case 0x4: {
        const { start, length } = this.sized(at, low);
        return this.scalar('data', hex(this.slice(start, length)));
      }
      case 0x5: {
        const { start, length } = this.sized(at, low);
        return this.scalar('string', latin(this.slice(start, length)));
      }
      case 0x6: {
        const { start, length } = this.sized(at, low);
        return this.scalar('string', wide(this.slice(start, length * 2)));
      }
      case 0x8:
        return this.scalar('integer', String(this.integer(at + 1, low + 1)));
      case 0xa:
      case 0xc: {
        const { start, length } = this.sized(at, low);
        const items = this.references(start, length).map((item) => this.object(item, depth + 1));
        return { type: 'array', items, element: blank('array') };
      }
      case 0xd: {
        const { start, length } = this.sized(at, low);
        const keys = this.references(start, length);
        const values = this.references(start + length * this.refSize, length);
        const entries = keys.map((key, position): PlistEntry => {
          const name = this.object(key, depth + 1);
          if (name.type !== 'string') throw new BinaryFault('a key is not a string', at);
          const value = this.object(values[position] ?? this.count, depth + 1);
          return { key: name.value, keyElement: blank('key'), value, start: 0, end: 0 };
        });
        return { type: 'dict', entries, element: blank('dict') };
      }
      default:
        throw new BinaryFault(`the marker 0x${marker.toString(16)} is not known`, at);
    }
  }

  private scalar(type: 'string' | 'integer' | 'real' | 'date' | 'data', value: string): PlistValue {
    return { type, value, element: blank(type) };
  }

  /** Where the contents of an object begin, and how many there are: in its marker, or in an integer after it. */
  private sized(at: number, low: number): { start: number; length: number } {
    if (low !== 0x0f) return { start: at + 1, length: low };
    const marker = this.byte(at + 1);
    if (marker >> 4 !== 0x1) throw new BinaryFault('a length is not an integer', at + 1);
    const size = 1 << (marker & 0x0f);
    const length = this.integer(at + 2, size);
    if (length > this.bytes.length) throw new BinaryFault('a length is larger than the file', at + 2);
    return { start: at + 2 + size, length };
  }

  private references(start: number, count: number): number[] {
    if (start + count * this.refSize > this.bytes.length)
      throw new BinaryFault('a list exceeds the file', start);
    return Array.from({ length: count }, (_, index) =>
      this.integer(start + index * this.refSize, this.refSize),
    );
  }

  private slice(start: number, length: number): Uint8Array {
    if (start + length > this.bytes.length) throw new BinaryFault('a value exceeds the file', start);
    return this.bytes.subarray(start, start + length);
  }

  private byte(at: number): number {
    const value = this.bytes[at];
    if (value === undefined) throw new BinaryFault('an offset is outside the file', at);
    return value;
  }

  private integer(at: number, size: number): number {
    let value = 0;
    for (let i = 0; i < size; i++) value = value * 256 + this.byte(at + i);
    if (!Number.isSafeInteger(value)) throw new BinaryFault('a number is too large', at);
    return value;
  }

  private signed(at: number, size: number): bigint {
    this.slice(at, size);
    if (size === 8) return this.view.getBigInt64(at);
    if (size === 16) return this.view.getBigInt64(at + 8);
    return BigInt(this.integer(at, size));
  }

  /** Seconds since the first day of 2001. */
  private date(at: number): string {
    const date = new Date((this.real(at, 8) + 978_307_200) * 1000);
    if (Number.isNaN(date.getTime())) throw new BinaryFault('a date is invalid', at);
    return date.toISOString();
  }

  private real(at: number, size: number): number {
    this.slice(at, size);
    if (size === 4) return this.view.getFloat32(at);
    if (size === 8) return this.view.getFloat64(at);
    throw new BinaryFault(`a real number has ${size} bytes`, at);
  }
}

function hex(bytes: Uint8Array): string {
  return [...bytes.subarray(0, 1000)].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}

function latin(bytes: Uint8Array): string {
  return new TextDecoder('latin1').decode(bytes);
}

function wide(bytes: Uint8Array): string {
  return new TextDecoder('utf-16be').decode(bytes);
}

/** Binary values have no place of their own. */
function blank(name: string): XmlElement {
  const nowhere = { start: 0, end: 0 };
  return {
    type: 'element',
    name,
    attributes: [],
    children: [],
    parent: null,
    openTag: nowhere,
    closeTag: null,
    selfClosing: true,
    ...nowhere,
  };
}
