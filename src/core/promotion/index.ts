export { openingBid, overTarget, type PromotionTarget } from './opening-bid';
export {
  compilePromotions,
  type Fate,
  type Obstacle,
  type PromotionPart,
  type PromotionPlan,
  type PromotionPlanner,
  type PromotionQuestion,
  type Seats,
} from './plan';
export { proposeSeats, type SeatCandidate } from './propose-seats';
