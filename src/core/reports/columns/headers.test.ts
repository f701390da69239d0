import { describe, expect, test } from 'vitest';
import { isKnown, roleOfHeader } from './headers';
import { LEFT_OUT, ROLE_WORDS } from './header-words';

describe('a header', () => {
  test.each([
    ['Search Term', 'search term'],
    ['search_term', 'search term'],
    ['Kundensuchbegriff', 'search term'],
    ['Search term match type', 'match type'],
    ['Ad group name', 'ad group'],
    ['AD GROUP', 'ad group'],
    ['Kampagnenname', 'campaign'],
    ['Palabra clave', 'keyword'],
    ['Mot-clé', 'keyword'],
    ['Conv. value', 'value'],
    ['Total conversion value', 'value'],
    ['Bestellwert (EUR)', 'value'],
    ['7 day total orders', 'conversions'],
    ['Sales within 14 days', 'value'],
    ['Impr.', 'impressions'],
    ['Anzeigen', 'impressions'],
    ['Coût (€)', 'cost'],
    ['Werbekosten', 'cost'],
    ['Día', 'day'],
    ['Avg. monthly searches', 'volume'],
    ['Volume de recherche', 'volume'],
    ['Top of page bid (low range)', 'low bid'],
    ['Top of page bid (high range)', 'high bid'],
    ['Max. CPC', 'bid'],
    ['Campaign status', 'status'],
    ['Currency code', 'currency'],
    ['Währungscode', 'currency'],
    ['Kontowährung', 'currency'],
    ['Code devise', 'currency'],
    ['Código de moneda', 'currency'],
    ['Valutacode', 'currency'],
    ['Suchbegriffstext', 'search term'],
    ['Suchanfragentext', 'search term'],
    ['Texte du terme de recherche', 'search term'],
    ['Zoekopdrachttekst', 'search term'],
    ['Schlüsselwortgruppe', 'keyword'],
    ['Keywordtext', 'keyword'],
    ['Anzeigengruppenname', 'ad group'],
    ['Nom du groupe d’annonces', 'ad group'],
    ['Advertentiegroepnaam', 'ad group'],
    ['Nombre de la campaña', 'campaign'],
    ['Campagnenaam', 'campaign'],
    ['Konversionswert', 'value'],
    ['Gesamtbestellungen', 'conversions'],
    ['Anzahl der Bestellungen', 'conversions'],
    ['Sichtbare Einblendungen', 'impressions'],
    ['Gesamtklicks', 'clicks'],
    ['Werbeausgaben', 'cost'],
    ['Berichtsdatum', 'day'],
    ['Monatl. Suchanfragen', 'volume'],
    ['Recherches mensuelles moyennes', 'volume'],
    ['Búsquedas al mes', 'volume'],
    ['Maandelijkse zoekopdrachten', 'volume'],
    ['Mindestgebot', 'low bid'],
    ['Puja máxima', 'high bid'],
    ['Übereinstimmungstyp', 'match type'],
    ['Abgleichsart', 'match type'],
  ])('%s is the %s', (header, role) => expect(roleOfHeader(header).role).toBe(role));

  test.each([
    ['CTR'],
    ['Click rate'],
    ['Conv. rate'],
    ['Cost / conv.'],
    ['Cost per click'],
    ['Kosten pro Klick'],
    ['Coût par clic'],
    ['Coste por clic'],
    ['Advertising cost of sales (ACoS)'],
    ['Return on ad spend'],
    ['Durchschn. CPC'],
    ['Klickpreis'],
    ['Wechselkurs'],
    ['Startdatum'],
    ['Werbekonto'],
    ['Search term ID'],
    ['Daily budget'],
  ])('%s is left out, and known', (header) => {
    const meaning = roleOfHeader(header);
    expect(meaning.role).toBeNull();
    expect(isKnown(meaning)).toBe(true);
  });

  test.each([['Notes'], [''], ['x'.repeat(500)], ['12.50'], ['Product colour']])(
    '%j is not known',
    (header) => {
      expect(isKnown(roleOfHeader(header))).toBe(false);
    },
  );
});

describe('the table of names', () => {
  const names = [...ROLE_WORDS, ...LEFT_OUT].flatMap((entry) => entry.names);

  test('holds names as they are compared: lower case, no accents, no empty ones', () => {
    for (const name of names) for (const word of name) expect(word).toMatch(/^\*?[a-z0-9&]+\*?$/);
  });

  test('names no thing twice within one role', () => {
    for (const { names: own } of ROLE_WORDS) {
      const joined = own.map((name) => name.join(' '));
      expect(new Set(joined).size).toBe(joined.length);
    }
  });

  test('every name finds its own role, unless one above has it', () => {
    ROLE_WORDS.forEach(({ names: own }, at) => {
      for (const name of own) {
        const found = roleOfHeader(name.join(' ').replaceAll('*', '')).role;
        expect(ROLE_WORDS.findIndex((entry) => entry.role === found)).toBeLessThanOrEqual(at);
        expect(found, name.join(' ')).not.toBeNull();
      }
    });
  });
});
