import type { StringResource } from '../../../formats/android-resources/read.js';
import type { ChainStep, Place } from '../../../facts/evidence.js';

/** A string resource of a variant, with what gives it. */
export interface FoundString {
  name: string;
  value: string;
  sourceSet: string;
  place: Place;
  step: ChainStep;
  /** The resource in its file; undefined when a build script defines it. */
  resource?: StringResource;
}
