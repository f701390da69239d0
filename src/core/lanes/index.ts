export { findLaneFaults, type LaneFault } from './faults-of-lanes';
export { compileLeaks, type ExplainLeak, type LanesGround, type LeakCause } from './leaks';
export { rerouteQueries, type Rerouted, type ServedQuery } from './reroute';
export { compileLanes, planLanes, routeQuery, type EntryTerm, type Lanes, type Tier } from './tiers';
