import { dottedName } from '../syntax/shape.js';

/** The types of the names in a source file, as far as they are written. */
export class NamedTypes {
  /** Types by name, as declared. */
  readonly declared = new Map<string, string>();
  /** Names for what has another name: `final footer = _footer`, `if let footer = self.footer`. */
  readonly #aliases = new Map<string, string>();

  put(name: string, type: string): void {
    this.declared.set(name, type);
  }

  /** As `put`, but the first declaration of a name counts. */
  declare(name: string, type: string): void {
    if (!this.declared.has(name)) this.declared.set(name, type);
  }

  /** Records that a name is an alias of another one. */
  alias(name: string, other: string): void {
    const plain = other.replace(/^(?:this|self)[.?!]+/, '').replace(/[?!]+$/, '');
    if (!this.#aliases.has(name)) this.#aliases.set(name, plain);
  }

  /** `banner.release` with the type of `banner` in its place. */
  typed(name: string): string {
    const dot = name.indexOf('.');
    if (dot < 0) return name;
    const type = this.#typeOf(name.slice(0, dot));
    return type === undefined ? name : `${dottedName(type)}${name.slice(dot)}`;
  }

  #typeOf(name: string): string | undefined {
    const seen = new Set<string>();
    for (let at: string | undefined = name; at !== undefined && !seen.has(at); at = this.#aliases.get(at)) {
      seen.add(at);
      const type = this.declared.get(at);
      if (type !== undefined) return type;
    }
    return undefined;
  }
}
