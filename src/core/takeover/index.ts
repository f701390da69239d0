export { clicksToCome } from './clicks-to-come';
export { comesBack, type ComesBack, type Stopped } from './comes-back';
export { learnHabits, type Habits, type RanColumns } from './habits';
