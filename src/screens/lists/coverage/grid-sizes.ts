/** px of the grid's parts. */
export const ROW = 32;
export const HEAD = 132;
export const NARROW = 27;
export const FOLDED = 44;
/** what stands to the left of the cells: the list, its entries, on how much it hangs */
export const LEFT = 272;

/** Columns in sight, as the virtual list tells them. */
export type InSight = readonly { index: number; key: unknown; start: number; size: number }[];
/** Where each column in sight begins, as a string that is the same as long as they are. */
export const startsOf = (inSight: InSight) => inSight.map(({ start, size }) => `${start}:${size}`).join();
