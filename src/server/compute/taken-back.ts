/** Why reading stops when nobody waits for it any more. */
export class TakenBack extends Error {
  override name = 'TakenBack';
}
