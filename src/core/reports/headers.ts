import { normalise } from '../text';
import type { ColumnRole } from './reading';

/**
 * Headers that name something which is left out. Ratios are recomputed from sums; identifiers and states are not
 * needed. Asked of the header in lower case, units in brackets taken away.
 */
const LEFT_OUT: { pattern: RegExp; because: string }[] = [
  {
    pattern:
      /%|\/|\b(per|pro|par|por|rate|quote|taux|tasa|ratio|avg|average|mean|ctr|cpc|cpa|cpm|cvr|acos|roas|share|position)\b|ø|durchschn|moyen|promedio|medio|gemiddeld|percentage|prozent|anteil/,
    because: 'a ratio, is recomputed',
  },
  {
    pattern:
      /\b(id|ids|status|state|zustand|estado|état|bid|gebot|budget|label|labels|url|currency|währung|devise|moneda|valuta)\b/,
    because: 'not needed',
  },
  {
    pattern: /\b(all|alle|toutes|todas|view through|assisted|added|excluded)\b/,
    because: 'not the figure of the term itself',
  },
];

/**
 * Words that name a role, in English, German, French, Spanish and Dutch. The first entry whose pattern stands in
 * the normalised header wins, so what is more specific stands above.
 */
const ROLE_WORDS: { role: ColumnRole; pattern: RegExp }[] = [
  {
    role: 'match type',
    pattern:
      /\b(match|matchtype|matched by|treffer\w*|übereinstimmung\w*|correspondance|concordancia|zoektype)\b/,
  },
  {
    role: 'search term',
    pattern:
      /\b(search (terms?|quer(y|ies))|quer(y|ies)|terms?|suchbegriffe?|suchanfragen?|termes? de recherche|requêtes?|términos?( de búsqueda)?|consultas?|zoekterm(en)?|zoekopdracht(en)?)\b/,
  },
  {
    role: 'ad group',
    pattern:
      /\b(ad ?groups?|anzeigengruppen?|gruppen?|groupes?|group|grupos?|advertentiegroep(en)?|groep(en)?)\b/,
  },
  { role: 'campaign', pattern: /\b(campaigns?|kampagnen?|campagnes?|campañas?|campana)\b/ },
  {
    role: 'keyword',
    pattern:
      /\b(keywords?|schlüsselw(ort|örter)|stichw(ort|örter)|mots? clés?|palabras? claves?|zoekwoord(en)?|targeting|target)\b/,
  },
  { role: 'day', pattern: /\b(day|date|tag|datum|jour|fecha|día|dia|dag)\b/ },
  {
    role: 'value',
    pattern:
      /\b(values?|revenue|sales|turnover|umsatz|wert|\w+wert|valeur|ventes|chiffre d affaires|valor|ingresos|ventas|omzet|waarde|\w+waarde)\b/,
  },
  {
    role: 'conversions',
    pattern:
      /\b(conv|conversions?|orders?|purchases?|bestellung(en)?|konversion(en)?|käufe|commandes?|achats?|conversiones|pedidos?|compras?|conversies?|bestelling(en)?|aankopen)\b/,
  },
  {
    role: 'impressions',
    pattern:
      /\b(impr|imps|impressions?|impressionen|einblendungen|anzeigen|affichages?|impresiones|vertoningen|weergaven)\b/,
  },
  { role: 'clicks', pattern: /\b(clicks?|klicks?|clics?|kliks?|klikken)\b/ },
  {
    role: 'cost',
    pattern:
      /\b(costs?|spend|spent|kosten|ausgaben|coûts?|dépenses?|costes?|costos?|gastos?|uitgaven|amount)\b/,
  },
];

/** What a header names, or why its column is left out. @example roleOfHeader('Kosten (EUR)').role // 'cost' */
export function roleOfHeader(header: string): { role: ColumnRole | null; because: string } {
  const bare = header.replace(/[([].*?[)\]]/g, ' ').toLowerCase();
  const leftOut = LEFT_OUT.find(({ pattern }) => pattern.test(bare));
  if (leftOut) return { role: null, because: leftOut.because };
  // \b knows ASCII letters only: accents are spelt out on both sides, so that “día” and “coût” keep their bounds.
  const text = plainLetters(normalise(bare));
  const found = ROLE_WORDS.find(({ pattern }) => new RegExp(plainLetters(pattern.source)).test(text));
  return found
    ? { role: found.role, because: 'named so' }
    : { role: null, because: 'not a name that is known' };
}

/** Whether a header names a report's column at all, be it one that is left out. */
export function isKnownHeader(header: string): boolean {
  return header.length <= 60 && roleOfHeader(header).because !== 'not a name that is known';
}

function plainLetters(text: string): string {
  return text
    .normalize('NFD')
    .replace(/\p{M}+/gu, '')
    .replace(/ß/g, 'ss');
}
