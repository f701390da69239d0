const families = (text: string) => text.split('; ').map((family) => family.split(' '));

/** Words that people use for the same, or for what is near it. The stand-in's broad keywords follow them; the core knows none. */
const FAMILIES = families(
  [
    'bee bees beekeeping beekeeper apiary; hive hives beehive; suit suits jacket smock overalls trousers; veil hat',
    'kids childrens children youth young school toddler; box boxes super chest; kit set pack; frame frames bars bar',
    'course courses class classes training lessons workshop webinar; experience taster day visit talk; voucher gift',
    'queen queens; extractor spinner press; strainer sieve ripener; tank filler; jar jars; labels seals',
    'strips treatment thymol oxalic vaporizer; varroa mite; trap traps guard; wax beeswax comb; knife fork roller',
    'nucleus nuc colony; mason solitary bumblebee; feeder fondant syrup patties; smoker fuel pellets; brush clip cage',
    'heater warmer warming heated; electric motor solar; creamer mixer stirrer; stand legs roof lid board; mead wine',
    'mesh ventilated; boots gloves; catcher rearing grafting; weekend two; shop store supplies; diploma certificate',
  ].join('; '),
);
/** Words that say two things at once. */
const HOLDS: Record<string, readonly string[]> = { beehive: ['bee'], beeswax: ['bee'], bumblebee: ['bee'] };

const MEANT = new Map<string, Set<string>>();
for (const family of FAMILIES)
  for (const word of family) {
    const meant = MEANT.get(word) ?? new Set<string>();
    MEANT.set(word, meant);
    for (const other of family) meant.add(other);
  }

/** Words that a text means besides those it holds, in the order of the alphabet. */
export function wordsMeantBy(text: string): string[] {
  const held = text.split(' ');
  const meant = new Set(held.flatMap((word) => [...(MEANT.get(word) ?? []), ...(HOLDS[word] ?? [])]));
  for (const word of held) meant.delete(word);
  return [...meant].sort();
}
