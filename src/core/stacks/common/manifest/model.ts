import type { ChainStep } from '../../../facts/evidence.js';
import type { Fact, SurveyEdition, Unresolved } from '../../../facts/model.js';
import type { XmlDocument } from '../../../formats/xml/model.js';
import type { Tree } from '../../../tree/tree.js';
import type { WireContext } from '../../stack.js';
import type { Resolved } from '../gradle/resolved.js';

/** What a part of the Android survey adds: facts, and values that could not be determined. */
export interface Collected {
  facts: Fact[];
  unresolved: Unresolved[];
}

/** A file of a module's source set. */
export interface SourceSetFile {
  path: string;
  sourceSet: string;
}

/** A manifest that goes into a variant's. */
export interface ManifestFile extends SourceSetFile {
  document: XmlDocument;
  /** Whether it belongs to a module that the application takes in. */
  library: boolean;
}

/** The input of the parts of the wiring that concern only a manifest, however the application is built. */
export interface ManifestWireContext extends WireContext {
  tree: Tree;
  edition: SurveyEdition;
  /** The manifest that what is missing goes into. */
  manifest: string;
}

/** The manifests that a build merges for one variant, and what is behind the values in them. */
export interface ManifestBuild {
  module: string;
  variant: string;
  /** The weakest first. */
  files: readonly ManifestFile[];
  /** The package that short class names belong to. */
  namespace: string | null;
  /** Whether everything that may define strings and placeholders was read. */
  isComplete: boolean;
  placeholder(name: string): Resolved | undefined;
  string(name: string): { value: string; step: ChainStep } | undefined;
}

/** The value that an element of a manifest has in the build, or the reason why it has none. */
export type ValueOutcome =
  | { value: string; chain: ChainStep[]; isResource?: boolean }
  | { value: null; reason: string; chain: ChainStep[]; cause?: Unresolved['cause'] };
