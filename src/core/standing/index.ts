export { changesBack, compareStanding, type ComparedStanding, type Standing } from './compare-standing';
