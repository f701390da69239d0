/** What Larkfell sells: lines, and in each the products with the words that people use for them. */
export type Product = { name: string; words: string[]; cpc: number; cvr: number; value: number };
export type Line = { campaign: string; budget: string | null; products: Product[] };

const p = (name: string, words: string, cpc: number, cvr: number, value: number): Product => ({
  name,
  words: words.split(', '),
  cpc,
  cvr,
  value,
});

export const LINES: Line[] = [
  {
    campaign: 'Hives · Starter',
    budget: null,
    products: [
      p('Complete hives', 'bee hive, beehive, complete hive', 0.92, 0.034, 189),
      p('Starter kits', 'bee hive kit, beekeeping starter kit, hive starter set', 0.88, 0.041, 229),
      p('Hive boxes', 'hive box, brood box, honey super', 0.61, 0.038, 44),
      p('Hive stands', 'hive stand, beehive stand, hive legs', 0.55, 0.036, 39),
      p('Frames', 'hive frames, bee frames, brood frames', 0.48, 0.044, 31),
      p('Foundation', 'wax foundation, comb foundation, foundation sheets', 0.5, 0.045, 27),
      p('Hive roofs', 'hive roof, beehive lid, crown board', 0.44, 0.035, 33),
    ],
  },
  {
    campaign: 'Hives · Top bar',
    budget: null,
    products: [
      p('Top bar hives', 'top bar hive, horizontal hive, trough hive', 0.84, 0.03, 199),
      p('Top bars', 'top bars, hive bars, comb guides', 0.42, 0.037, 24),
      p('Long hives', 'long hive, long box hive, chest hive', 0.78, 0.027, 245),
      p('Observation hives', 'observation hive, glass beehive, window hive', 0.81, 0.024, 310),
      p('Log hives', 'log hive, tree hive, hollow log beehive', 0.66, 0.018, 175),
      p('Nucleus boxes', 'nucleus box, nuc box, mating hive', 0.52, 0.036, 48),
    ],
  },
  {
    campaign: 'Clothing · Suits',
    budget: 'Clothing',
    products: [
      p('Bee suits', 'bee suit, beekeeping suit, beekeeper suit', 0.97, 0.042, 98),
      p('Jackets', 'beekeeping jacket, bee jacket, beekeeper smock', 0.86, 0.043, 69),
      p('Veils', 'bee veil, beekeeping hat, veil hat', 0.57, 0.046, 28),
      p('Gloves', 'beekeeping gloves, bee gloves, leather bee gloves', 0.59, 0.05, 24),
      p('Boots', 'beekeeping boots, apiary boots, white bee boots', 0.52, 0.027, 46),
      p('Ventilated suits', 'ventilated bee suit, mesh bee suit, three layer bee suit', 1.02, 0.044, 149),
      p('Trousers', 'beekeeping trousers, bee trousers, beekeeper overalls', 0.6, 0.033, 52),
    ],
  },
  {
    campaign: 'Clothing · Kids',
    budget: 'Clothing',
    products: [
      p('Kids suits', 'kids bee suit, childrens beekeeping suit, youth bee suit', 0.79, 0.04, 64),
      p('Kids gloves', 'kids bee gloves, childrens bee gloves, small bee gloves', 0.47, 0.042, 17),
      p('Kids veils', 'kids bee veil, childrens bee hat, youth veil', 0.45, 0.037, 21),
      p('Kids sets', 'kids beekeeping set, childrens bee kit, young beekeeper kit', 0.72, 0.034, 79),
      p('Kids jackets', 'kids bee jacket, childrens bee smock, youth bee jacket', 0.68, 0.037, 49),
      p('School packs', 'school beekeeping pack, school bee suits, class bee kit', 0.66, 0.022, 320),
    ],
  },
  {
    campaign: 'Tools · Smokers',
    budget: null,
    products: [
      p('Smokers', 'bee smoker, hive smoker, beekeeping smoker', 0.64, 0.052, 36),
      p('Smoker fuel', 'smoker fuel, bee smoker pellets, hessian smoker fuel', 0.38, 0.055, 14),
      p('Hive tools', 'hive tool, frame lifter, j hook tool', 0.43, 0.054, 16),
      p('Bee brushes', 'bee brush, hive brush, frame brush', 0.34, 0.049, 11),
      p('Feeders', 'bee feeder, hive feeder, frame feeder', 0.49, 0.048, 22),
      p('Queen catchers', 'queen catcher, queen clip, queen cage', 0.37, 0.047, 12),
      p('Mouse guards', 'mouse guard, hive entrance reducer, hive guard', 0.33, 0.045, 9),
    ],
  },
  {
    campaign: 'Extraction · Manual',
    budget: 'Extraction',
    products: [
      p('Manual extractors', 'honey extractor, manual honey extractor, hand honey spinner', 1.05, 0.031, 239),
      p('Honey presses', 'honey press, fruit and honey press, comb press', 0.74, 0.028, 165),
      p('Uncapping tools', 'uncapping fork, uncapping knife, uncapping roller', 0.41, 0.05, 19),
      p('Strainers', 'honey strainer, honey sieve, double strainer', 0.4, 0.052, 26),
      p('Settling tanks', 'honey tank, settling tank, honey ripener', 0.63, 0.038, 95),
      p('Jars', 'honey jars, glass honey jars, hex jars', 0.56, 0.047, 34),
      p('Labels', 'honey labels, honey jar labels, jar seals', 0.45, 0.043, 18),
    ],
  },
  {
    campaign: 'Extraction · Electric',
    budget: 'Extraction',
    products: [
      p(
        'Electric extractors',
        'electric honey extractor, motor honey extractor, radial extractor',
        1.18,
        0.027,
        620,
      ),
      p('Creaming machines', 'honey creamer, honey mixer, honey stirrer', 0.87, 0.023, 480),
      p('Wax melters', 'wax melter, solar wax melter, beeswax melter', 0.69, 0.033, 160),
      p('Heating cabinets', 'honey warmer, warming cabinet, honey heater', 0.71, 0.03, 210),
      p('Electric knives', 'electric uncapping knife, heated uncapping knife, hot knife', 0.6, 0.036, 79),
      p('Filling machines', 'honey filling machine, jar filler, honey pump', 0.95, 0.019, 890),
    ],
  },
  {
    campaign: 'Live bees · Queens',
    budget: null,
    products: [
      p('Queens', 'queen bees, mated queen bee, marked queen', 0.73, 0.045, 42),
      p('Nuclei', 'bee nucleus, nuc of bees, bee colony', 0.94, 0.035, 195),
      p('Package bees', 'package bees, live bees, honey bees', 0.9, 0.024, 165),
      p('Mason bees', 'mason bees, mason bee cocoons, solitary bees', 0.51, 0.035, 29),
      p('Bumblebees', 'bumblebee colony, bumblebee hive, bumblebee nest box', 0.62, 0.027, 75),
      p('Queen rearing', 'queen rearing kit, grafting tool, queen cups', 0.46, 0.044, 33),
    ],
  },
  {
    campaign: 'Health · Varroa',
    budget: null,
    products: [
      p('Varroa strips', 'varroa strips, varroa treatment, mite strips', 0.66, 0.057, 28),
      p('Oxalic acid', 'oxalic acid bees, oxalic vaporizer, bee vaporizer', 0.72, 0.044, 88),
      p('Thymol', 'thymol treatment, thymol frames, thymol bees', 0.48, 0.048, 21),
      p('Mite counting', 'varroa tester, mite board, varroa shaker', 0.39, 0.046, 17),
      p('Wasp traps', 'wasp trap, hornet trap, wasp guard', 0.54, 0.031, 15),
      p('Bee food', 'bee fondant, bee syrup, pollen patties', 0.53, 0.059, 24),
      p('Moth control', 'wax moth treatment, moth trap hive, comb protection', 0.37, 0.042, 16),
    ],
  },
  {
    campaign: 'Courses · General',
    budget: 'Courses',
    products: [
      p('Courses', 'beekeeping course, beekeeping classes, beekeeping training', 0.83, 0.032, 145),
      p(
        'Online courses',
        'online beekeeping course, beekeeping lessons online, beekeeping webinar',
        0.7,
        0.034,
        79,
      ),
      p(
        'Apprenticeships',
        'beekeeper apprentice course, beekeeping certificate, beekeeping diploma',
        0.68,
        0.02,
        420,
      ),
      p('Queen courses', 'queen rearing course, queen breeding class, grafting class', 0.57, 0.026, 110),
      p('Health courses', 'bee health course, bee disease training, varroa course', 0.52, 0.024, 95),
      p('School visits', 'school bee visit, bee workshop school, bee talk', 0.5, 0.02, 180),
    ],
  },
  {
    campaign: 'Courses · Weekend',
    budget: 'Courses',
    products: [
      p(
        'Weekend courses',
        'weekend beekeeping course, beekeeping weekend, two day bee course',
        0.78,
        0.033,
        165,
      ),
      p('Taster days', 'beekeeping experience, bee experience day, beekeeping taster', 0.81, 0.036, 75),
      p('Gift vouchers', 'beekeeping voucher, beekeeping gift, bee experience gift', 0.73, 0.034, 80),
      p('Candle courses', 'candle making course, beeswax candle workshop, candle class', 0.6, 0.028, 65),
      p('Mead courses', 'mead making course, honey wine workshop, mead class', 0.55, 0.025, 70),
    ],
  },
  {
    campaign: 'Brand · All',
    budget: null,
    products: [
      p('Larkfell', 'larkfell, larkfell bees, larkfell beekeeping', 0.21, 0.12, 84),
      p('Larkfell hives', 'larkfell hive, larkfell hives, larkfell beehive', 0.24, 0.11, 180),
      p('Larkfell suits', 'larkfell suit, larkfell bee suit, larkfell jacket', 0.23, 0.115, 95),
      p('Larkfell shop', 'larkfell shop, larkfell supplies, larkfell store', 0.2, 0.1, 70),
      p('Larkfell courses', 'larkfell course, larkfell classes, larkfell training', 0.22, 0.09, 140),
    ],
  },
];
