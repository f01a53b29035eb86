import type { Span } from '../text/problem.js';
import type { HeldAt } from '../words/names.js';

/** A condition that must hold, or must not, for what is under it to run. */
export interface Condition {
  text: string;
  holds: boolean;
}

/** A place in a source file. */
export interface CodeContext {
  /** The class around it, by its own name; null at the top of the file. */
  type: string | null;
  /** The method around it; null in a class's own body. */
  method: string | null;
  /** Every method around it, the outermost first: a callback inside a method is a method of its own. */
  methods: readonly string[];
  conditions: readonly Condition[];
  /** Whether it is in a loop, or in a closure that is called for each of several. */
  looped?: true | undefined;
  /** What names without a dot may belong to, inside `slot.apply { }` and `new Slot { }`. */
  receiver?: string | undefined;
}

/**
 * A value as far as it is plain: a text, a dotted name, what a call without arguments gives back, or something else.
 */
export type PlainValue =
  | (Span & { is: 'text'; value: string })
  | (Span & { is: 'name'; name: string })
  | (Span & { is: 'call'; name: string })
  | (Span & { is: 'other' });

export interface SourceArgument {
  label: string | null;
  values: PlainValue[];
}

/** What a text flows into, when that is plain. */
export type Flow = { into: 'constant'; name: string } | { into: 'argument'; of: string; at: number | string };

export interface SourceString extends Span {
  value: string;
  flow: Flow | null;
  context: CodeContext;
}

export interface SourceCall extends Span {
  /** Dotted; a variable of a known type is replaced by that type: `banner.release` is `BannerView.release`. */
  name: string;
  arguments: SourceArgument[];
  context: CodeContext;
  /** What its name belongs to where the code around it says so: `unitId = …` in `slot.apply { }`. */
  receiver?: string | undefined;
  /** Where it is held, if it is a view. */
  heldAt?: HeldAt | undefined;
}

/** A class with the names of the types that it extends, as written. */
export interface SourceType extends Span {
  name: string;
  bases: string[];
}

export interface SourceMethod extends Span {
  name: string;
  context: CodeContext;
  /** Whether nothing is done in it. */
  empty: boolean;
}

/** An expression that chooses between values, with every value that it may come to. */
export interface SourceChoice extends Span {
  values: PlainValue[];
  /** The cases of a choice that is written as cases; `default` means all others. */
  cases?: readonly string[];
  /** Whether it comes to one of the values; else they only stand side by side, to be chosen from elsewhere. */
  isValue?: boolean;
}

/** Code that runs under a condition. */
export interface SourceStretch extends Span {
  condition: Condition;
}

/** What holds values under a name: a constant, a function, a type; or under a key, as written, within one of those. */
export interface SourceHolder extends Span {
  is: 'name' | 'key';
  name: string;
  /** Whether it is a type. */
  isType?: true;
}

/** What a source file says, as far as ads are concerned. */
export interface SourceReading {
  strings: SourceString[];
  calls: SourceCall[];
  methods: SourceMethod[];
  types: SourceType[];
  /** The outermost first. */
  choices: SourceChoice[];
  /** Constants and variables with a plain value, by name and by `Type.name`. */
  constants: ReadonlyMap<string, PlainValue[]>;
  /** What functions and computed properties may give back, by name and by `Type.name`. */
  results: ReadonlyMap<string, PlainValue[]>;
  /** The types of variables, parameters and properties, as far as they are written. */
  variables: ReadonlyMap<string, string>;
  stretches: SourceStretch[];
  holders: SourceHolder[];
}
