import type { BriefTopic } from '@/contracts/ideas';

const list = (text: string) => text.split('; ');

/** Words of each topic, those that come to mind first at the beginning. `{p}` is what is sold. */
export const TOPIC_WORDS: Record<BriefTopic, readonly string[]> = {
  'jobs and careers': list(
    'jobs; careers; salary; salaries; vacancies; hiring; {p} jobs; internship; apprenticeship; resume; cv; recruiter; employment; job description; volunteer; part time; interview questions; training contract; work from home; how to become; wages; pension; staff login; payroll',
  ),
  learning: list(
    'course; courses; training; what is; definition; meaning; school; college; university; tutorial; lessons; homework; wiki; history of {p}; essay; worksheet; quiz; exam; certificate; diploma; textbook; lecture; lecture notes; facts about {p}',
  ),
  'do it yourself': list(
    'diy; how to make; how to build; homemade; make your own; plans; blueprint; pattern; template; instructions; step by step; do it yourself {p}; recipe; repair; fix; upcycled; from pallets; 3d print; stl; sewing pattern; crochet; craft ideas; hack; woodworking plans',
  ),
  free: list(
    'free; free {p}; freebie; giveaway; sample; download; pdf; torrent; printable; coupon; promo code; voucher; win a {p}; competition; trial; no cost; grant; donate; charity; leftover; crack; keygen; serial number; cheat',
  ),
  'second hand': list(
    'used; second hand; secondhand {p}; refurbished; pre owned; vintage; antique; auction; for parts; scrap; hire; rental; rent a {p}; lease; swap; trade in; sell my {p}; buy back; classifieds; collectable; car boot; pawn; clearance; ex display',
  ),
  media: list(
    'movie; film; song; lyrics; video; game; games; trailer; cartoon; anime; drawing; clipart; wallpaper; picture; tattoo; costume; meme; podcast; audiobook; soundtrack; poster; colouring pages; logo; emoji',
  ),
  explicit: list(
    'porn; sex; nude; xxx; escort; naked; erotic; adult; fetish; webcam girls; hookup; strip club; nsfw; kink; betting; casino; gambling; poker; weapon; ammunition; gore; suicide; drugs',
  ),
  'countries not served': list(
    'usa; australia; canada; india; ireland; new zealand; south africa; germany; france; spain; italy; poland; china; japan; brazil; mexico; singapore; dubai; pakistan; nigeria; kenya; philippines; portugal; sweden',
  ),
  'other trades': list(
    'wholesale; manufacturer; supplier; distributor; franchise; pest control; exterminator; removal service; insurance; lawyer; loan; mortgage; car; van; phone; laptop; hotel; restaurant; wedding; plumber; electrician; hairdresser; software; marketing agency',
  ),
};
