/** Words that say nothing alone: they are no stems, and make no groups. */
export const EMPTY_WORDS: readonly string[] =
  'a an and at by can do for from how i in is it my near of on or the to vs what where with you'.split(' ');
