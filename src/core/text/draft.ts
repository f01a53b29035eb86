import { sortEdits, type Edit } from './edit.js';

/** A stretch of the original text, or text that was put in. */
type Piece = { start: number; end: number } | { text: string };

/** A text that is edited step by step: each step is made for what the steps before it left. */
export class Draft {
  #pieces: Piece[];

  constructor(private readonly original: string) {
    this.#pieces = [{ start: 0, end: original.length }];
  }

  /** The text as the steps so far leave it. */
  get text(): string {
    return this.#pieces.map((piece) => this.textOf(piece)).join('');
  }

  /** All steps together, as edits of the original text. */
  get edits(): Edit[] {
    const edits: Edit[] = [];
    let at = 0;
    let text = '';
    const close = (end: number) => {
      if (text !== '' || end > at) edits.push({ start: at, end, text });
      text = '';
    };
    for (const piece of this.#pieces) {
      if ('text' in piece) text += piece.text;
      else {
        close(piece.start);
        at = piece.end;
      }
    }
    close(this.original.length);
    return edits;
  }

  /** Takes a step: edits of the present text, which do not overlap. */
  apply(edits: readonly Edit[]): void {
    for (const { start, end, text } of sortEdits(edits).reverse()) {
      const before = this.cut(0, start);
      const after = this.cut(end, Infinity);
      this.#pieces = [...before, ...(text === '' ? [] : [{ text }]), ...after];
    }
  }

  /** The pieces of a stretch of the present text. Empty ones are left out. */
  private cut(from: number, to: number): Piece[] {
    let at = 0;
    return this.#pieces.flatMap((piece): Piece[] => {
      const length = this.textOf(piece).length;
      const [start, end] = [Math.max(0, from - at), Math.min(length, to - at)];
      at += length;
      if (start >= end) return [];
      return 'text' in piece
        ? [{ text: piece.text.slice(start, end) }]
        : [{ start: piece.start + start, end: piece.start + end }];
    });
  }

  private textOf(piece: Piece): string {
    return 'text' in piece ? piece.text : this.original.slice(piece.start, piece.end);
  }
}
