export { minutesUntilTold, secondsUntilNextTry, type Telling } from './when-told';
