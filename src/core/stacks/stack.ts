import type { SurveyContext } from '../roster/survey-context.js';
import type { Profile } from '../network/model.js';
import type { Title } from '../roster/model.js';
import type { Fact, SurveyEdition, Unresolved } from '../facts/model.js';
import type { Tree } from '../tree/tree.js';
import type { ByHand, Change, WiringExtras } from '../edits/model.js';
import type { LanguageName } from '../languages/index.js';
import type { StackDescription } from './description.js';
import type { Declared } from '../facts/declared.js';

/** Which files of a tree a stack wants to see. All conditions given must hold. */
export interface CollectRule {
  /** The file's whole name. */
  name?: string;
  /** The end of the file's name. */
  suffix?: string;
  /** The beginning of the name of the folder that holds it. */
  parent?: string;
  /** Only when the file holds one of the networks' needles. */
  needle?: boolean;
}

/** A tree, or a part of one, that a stack knows how to read. */
export interface Recognition {
  root: string;
  /** The evidence, each a file and what it says. */
  evidence: string[];
  /** The roots of native trees that belong to it and are read as parts of it. */
  parts?: string[];
  /** Why it is skipped although it looks like an application: it is the example of a package. */
  passedOver?: string;
}

/** What a stack found in one part of a tree. */
export interface StackSurvey {
  editions: SurveyEdition[];
  facts: Fact[];
  unresolved: Unresolved[];
}

/** What a stack needs to compute its wiring. */
export interface WireContext extends SurveyContext {
  title: Title;
  survey: StackSurvey;
  extras: WiringExtras;
  /** Every profile: what is shared, such as a placebook, is written for all networks. `profiles` are those to wire. */
  allProfiles: readonly Profile[];
  /** The revision of the record that the title was read from. */
  revision?: number | undefined;
  /** Whether the tree is part of one whose code, with its placebook, is in another language. */
  hosted?: boolean;
}

/** What a stack needs to take a network out. */
export interface UnwireContext extends WireContext {
  network: Profile;
  /** The title without the network: what the others still need. */
  rest: Title;
  /** What earlier wirings say they put in that others may need too. */
  added: ReadonlySet<string>;
}

export interface StackWiring {
  changes: Change[];
  byHand: ByHand[];
}

/** One way in which trees are built. A stack reports facts and edits; it judges nothing. */
export interface Stack extends StackDescription {
  collect: readonly CollectRule[];
  /** The languages of source files that it may write, such as its placebook. */
  writes: readonly LanguageName[];
  /** Plain texts, besides those of networks, for which a source file matters. */
  needles: readonly string[];
  /** Ends of the paths of folders whose presence matters. */
  folders: readonly string[];
  /** Names of folders that its tools fill, in any tree. */
  skips: readonly string[];
  /** Folders that its tools fill, each told from others of its name by the end of a name that is beside it. */
  fills?: readonly { folder: string; beside: string }[];
  recognise(tree: Tree): Recognition[];
  survey(tree: Tree, root: string, context: SurveyContext): StackSurvey;
  wire(tree: Tree, root: string, context: WireContext): StackWiring;
  /** The edits that take out what `wire` would put in for one network and no other needs. */
  unwire(tree: Tree, root: string, context: UnwireContext): StackWiring;
  /** What its build files declare that might belong to an SDK, known or not. */
  declared(tree: Tree, root: string): Declared[];
}
