import { unwires } from '../../support/unwiring.js';
import { wholeTrees } from '../../support/whole-trees.js';

unwires(Object.entries(wholeTrees).filter((_, at) => at % 2 === 1));
