import type { Profile } from '../network/model.js';
import type { Recogniser } from '../network/recognise.js';
import type { Title } from './model.js';

/** What surveying needs besides the tree. */
export interface SurveyContext {
  profiles: readonly Profile[];
  recogniser: Recogniser;
  /** Gives variants their stages and names units; without it every stage is open. */
  title: Title | null;
}
