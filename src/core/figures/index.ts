export { bidThatPays } from './bid';
export {
  breakEvenCvr,
  clicksThatSettle,
  conversionsThatSettle,
  probabilityMissesTarget,
  type Target,
} from './evidence/evidence';
export { fitPrior, type Prior } from './evidence/prior';
export {
  addFigures,
  compareWithUndefinedLast,
  FIGURE_NAMES,
  noFigures,
  ratios,
  spendWithoutReturn,
  sumFigures,
  type Figures,
  type Ratios,
} from './figures';
export {
  decimalsOf,
  exampleAmount,
  formatAmount,
  isCurrency,
  parseAmount,
  plainAmount,
  smallestUnitOf,
} from './money';
export { daysBetween, lookBack, shiftDay, type Window } from './window';
