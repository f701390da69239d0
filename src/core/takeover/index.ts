export { likelyRange, netVariance } from './by-chance';
export { clicksToCome, priorOfGroup } from './clicks-to-come';
export { comesBack, takersOf, type ComesBack, type Stopped, type Taker } from './comes-back';
export { makeNeighbours } from './neighbours';
export { learnHabits, type Habits, type RanColumns } from './habits';
export {
  reckonSaved,
  trafficChange,
  type Acting,
  type PlayedRow,
  type SavedPart,
  type Stopping,
} from './saved';
