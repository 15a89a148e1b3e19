import { FirstTables1764028800000 } from './1764028800000-first-tables.js';
import { Corrections1764115200000 } from './1764115200000-corrections.js';
import { Measurements1764201600000 } from './1764201600000-measurements.js';
import { PlansInFull1764288000000 } from './1764288000000-plans-in-full.js';
import { Visits1764374400000 } from './1764374400000-visits.js';
import { Spine1764460800000 } from './1764460800000-spine.js';
import { Isolation1764547200000 } from './1764547200000-isolation.js';
import { NamesOfToday1764633600000 } from './1764633600000-names-of-today.js';
import { TakingOver1764720000000 } from './1764720000000-taking-over.js';
import { Access1764892800000 } from './1764892800000-access.js';
import { Notebook1765065600000 } from './1765065600000-notebook.js';
import { PointsAndPapers1765152000000 } from './1765152000000-points-and-papers.js';
import { PartsInFull1765238400000 } from './1765238400000-parts-in-full.js';
import { FaultSearches1765324800000 } from './1765324800000-fault-searches.js';
import { Devices1765411200000 } from './1765411200000-devices.js';
import { WordsPutRight1764806400000 } from './1764806400000-words-put-right.js';

/** What was done to more than the table of one kind of fact; what made such a table is named by it. */
export const migrations = [
  FirstTables1764028800000,
  Corrections1764115200000,
  Measurements1764201600000,
  PlansInFull1764288000000,
  Visits1764374400000,
  Spine1764460800000,
  Isolation1764547200000,
  NamesOfToday1764633600000,
  TakingOver1764720000000,
  WordsPutRight1764806400000,
  Access1764892800000,
  Notebook1765065600000,
  PointsAndPapers1765152000000,
  PartsInFull1765238400000,
  FaultSearches1765324800000,
  Devices1765411200000,
];
