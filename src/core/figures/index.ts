export { bidThatPays } from './bid';
export {
  breakEvenCvr,
  clicksThatSettle,
  conversionsThatSettle,
  fitPrior,
  probabilityMissesTarget,
  type Prior,
  type Target,
} from './evidence';
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
