/**
 * Why people ask. `{p}` is the product's words. The conversion rate is a factor on the product's own: what is 0 can
 * never pay, whatever it looks like. `relevant` is the truth against which a reader's decisions can be held.
 */
export type Intent = {
  name: string;
  /** factor on the product's conversion rate */
  conversion: number;
  /** mean impressions a day of one query, before the product's popularity */
  volume: number;
  ctr: number;
  relevant: boolean;
  /** lines in which this intent does convert although it does not elsewhere */
  goodIn?: { campaigns: string[]; conversion: number };
  templates: string[];
  /** lines of which this is asked; all when left out */
  only?: RegExp;
};

const list = (text: string) => text.split('; ');

export const INTENTS: Intent[] = [
  {
    name: 'buying',
    conversion: 1,
    volume: 3.4,
    ctr: 0.062,
    relevant: true,
    templates: list(
      '{p}; buy {p}; {p} for sale; {p} price; {p} shop; {p} online; best {p}; cheap {p}; {p} uk; {p} near me; order {p}; {p} sale; {p} for beginners; {p} suppliers; {p} deals; {p} offer; quality {p}; {p} in stock',
    ),
  },
  {
    name: 'buying things',
    conversion: 1.05,
    volume: 1.9,
    ctr: 0.06,
    relevant: true,
    only: /Hives|Clothing|Tools|Extraction|Health|Brand/,
    templates: list(
      '{p} delivery; new {p}; {p} set; {p} large; {p} small; {p} professional; {p} with stand; {p} cedar; {p} stainless steel; {p} oak; {p} two pack; {p} next day; {p} lightweight; {p} heavy duty',
    ),
  },
  {
    name: 'booking',
    conversion: 1.1,
    volume: 1.9,
    ctr: 0.058,
    relevant: true,
    only: /Courses/,
    templates: list(
      '{p} dates; book {p}; {p} spring; {p} 2027; {p} for two; {p} gift voucher; {p} hampshire; {p} yorkshire; {p} evening; {p} one day',
    ),
  },
  {
    // Looks like people who want nothing to cost anything, but these buy.
    name: 'free delivery',
    conversion: 1.25,
    volume: 0.9,
    only: /Hives|Clothing|Tools|Extraction|Health|Brand/,
    ctr: 0.058,
    relevant: true,
    templates: list('{p} free delivery; {p} free postage; {p} free returns; free shipping {p}'),
  },
  {
    name: 'comparing',
    conversion: 0.7,
    volume: 0.7,
    ctr: 0.05,
    relevant: true,
    templates: list(
      '{p} reviews; {p} review; which {p}; {p} comparison; top rated {p}; {p} vs plastic; is {p} worth it; {p} sizes',
    ),
  },
  {
    name: 'learning',
    conversion: 0.04,
    volume: 2.4,
    ctr: 0.034,
    relevant: false,
    goodIn: { campaigns: ['Courses · General', 'Courses · Weekend'], conversion: 0.9 },
    templates: list(
      'how to use {p}; what is {p}; {p} meaning; how does {p} work; {p} explained; learn about {p}; {p} guide; {p} facts; history of {p}; {p} wiki; {p} parts; how to clean {p}; {p} tutorial; {p} definition',
    ),
  },
  {
    name: 'jobs',
    conversion: 0,
    volume: 1.9,
    ctr: 0.03,
    relevant: false,
    templates: list(
      '{p} jobs; {p} job vacancy; {p} salary; {p} career; {p} hiring; work with {p}; {p} salary per year; {p} internship; {p} jobs abroad; {p} volunteer',
    ),
  },
  {
    name: 'films and games',
    conversion: 0,
    volume: 2.3,
    ctr: 0.031,
    relevant: false,
    templates: list(
      '{p} movie; {p} movie cast; {p} cartoon; {p} game; {p} song lyrics; {p} trailer; {p} documentary; {p} episode; {p} meme; {p} emoji; {p} wallpaper',
    ),
  },
  {
    name: 'costumes',
    conversion: 0,
    volume: 1.6,
    ctr: 0.043,
    relevant: false,
    templates: list(
      '{p} costume; {p} fancy dress; {p} halloween; {p} costume adult; {p} cosplay; {p} party outfit',
    ),
  },
  {
    name: 'do-it-yourself',
    conversion: 0.02,
    volume: 2.2,
    ctr: 0.037,
    relevant: false,
    templates: list(
      'free {p} plans; {p} plans pdf; diy {p}; how to build {p}; homemade {p}; make your own {p}; {p} blueprint; {p} dimensions; {p} drawing easy; {p} pattern free; build a {p} from pallets',
    ),
  },
  {
    name: 'pests',
    conversion: 0,
    volume: 1.4,
    ctr: 0.042,
    relevant: false,
    templates: list(
      '{p} removal; get rid of {p}; {p} spray; {p} exterminator; {p} in wall; {p} sting treatment; {p} allergy; kill {p}',
    ),
  },
  {
    name: 'second hand',
    conversion: 0.12,
    volume: 1.3,
    ctr: 0.05,
    relevant: false,
    templates: list('second hand {p}; used {p}; {p} auction; {p} hire; rent {p}; refurbished {p}; {p} swap'),
  },
  {
    name: 'children',
    conversion: 0.03,
    volume: 1.2,
    ctr: 0.036,
    relevant: false,
    goodIn: { campaigns: ['Clothing · Kids'], conversion: 1.1 },
    templates: list(
      '{p} for kids; {p} for children; {p} kids party; {p} colouring page; toddler {p}; {p} craft for kids; {p} toy; {p} story for children',
    ),
  },
  {
    name: 'recipes',
    conversion: 0,
    volume: 1.0,
    ctr: 0.033,
    relevant: false,
    templates: list('{p} recipe; {p} cake; {p} cake topper; {p} cocktail; {p} calories; {p} ideas dinner'),
  },
  {
    name: 'places not served',
    conversion: 0.01,
    volume: 1.1,
    ctr: 0.055,
    relevant: false,
    templates: list(
      '{p} canada; {p} australia; {p} new zealand; {p} isle of man; {p} jersey island; {p} south africa; {p} india; {p} dubai; {p} texas',
    ),
  },
  {
    // Looks like the best customers there are, but Larkfell does not sell in bulk.
    name: 'wholesale',
    conversion: 0.02,
    volume: 1.1,
    ctr: 0.066,
    relevant: false,
    templates: list(
      '{p} wholesale; bulk {p}; {p} manufacturer; {p} trade price; {p} distributor; {p} pallet load; wholesale {p} supplier',
    ),
  },
  {
    name: 'makers not sold',
    conversion: 0.05,
    volume: 1.4,
    ctr: 0.05,
    relevant: false,
    templates: list(
      'hobbington {p}; orchard vale {p}; drumlin {p}; pellwright {p}; {p} hobbington; {p} drumlin; marrowdale {p}; quenby and son {p}',
    ),
  },
  {
    name: 'tattoos and pictures',
    conversion: 0,
    volume: 0.9,
    ctr: 0.028,
    relevant: false,
    templates: list('{p} tattoo; {p} clipart; {p} png; {p} drawing; {p} svg; {p} photo; {p} logo'),
  },
];

/** Words that make more queries of one, for demos of any size; they change nothing about what is wanted. */
export const TAILS: string[] = list(
  '2026; white; green; small garden; xl; medium; wooden; heavy duty; lightweight; 10 frame; 8 frame; 14x12; hampshire; yorkshire; somerset; pine; painted; twin; easy; quality; allotment; rooftop; urban; winter; spring; two; three; club; hobby; farm; today; this week; metal; plastic; deluxe; basic; premium; extra; long; tall; devon; kent; norfolk; cumbria; wales; scotland; town; village; city; local',
);
