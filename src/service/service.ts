import type { ServiceContext } from './context.js';
import type { LinkedTrees } from './linked-trees.js';
import type { OverviewWork } from './overview-work.js';
import type { CollectWork } from './partners/collect-work.js';
import type { ProvisionWork } from './partners/provision-work.js';
import type { RehearsalWork } from './rehearsals/rehearsal-work.js';
import type { StepsWork } from './steps-work.js';
import type { FigureWork } from './tally/figure-work.js';
import type { HistoryWork } from './tally/history-work.js';
import type { TallyWork } from './tally/tally-work.js';
import type { TitleWork } from './title-work.js';
import type { TreeWork } from './tree-work.js';

/** What handlers of routes work with: the stores, and the work that is built on them. */
export interface Service extends ServiceContext {
  overviewing: OverviewWork;
  titleWork: TitleWork;
  treeWork: TreeWork;
  stepsWork: StepsWork;
  provisioning: ProvisionWork;
  collecting: CollectWork;
  rehearsing: RehearsalWork;
  tallying: TallyWork;
  figuring: FigureWork;
  tallyHistory: HistoryWork;
  linkedTrees: LinkedTrees;
}
