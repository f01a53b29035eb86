import { enclosing } from '../text/enclosing.js';
import { groupBy } from '../text/group-by.js';
import type { Span } from '../text/problem.js';
import { lastPart } from './named-calls.js';
import type {
  SourceCall,
  SourceHolder,
  SourceMethod,
  SourceReading,
  SourceStretch,
} from './source-reading.js';

/** What surrounds a span of a source file; of each kind the outermost first. */
export interface Surroundings {
  calls(span: Span): SourceCall[];
  methods(span: Span): SourceMethod[];
  holders(span: Span): SourceHolder[];
  stretches(span: Span): SourceStretch[];
  /** The calls of the file by their names, and by the last parts of those. */
  named: ReadonlyMap<string, readonly SourceCall[]>;
  ending: ReadonlyMap<string, readonly SourceCall[]>;
}

const known = new WeakMap<SourceReading, Surroundings>();

/** Finds what surrounds a span; the file is put in order once, however often it is asked. */
export function surroundings(reading: SourceReading): Surroundings {
  let found = known.get(reading);
  if (!found) {
    found = {
      calls: enclosing(reading.calls),
      methods: enclosing(reading.methods),
      holders: enclosing(reading.holders),
      stretches: enclosing(reading.stretches),
      named: groupBy(reading.calls, ({ name }) => name),
      ending: groupBy(reading.calls, ({ name }) => lastPart(name)),
    };
    known.set(reading, found);
  }
  return found;
}
