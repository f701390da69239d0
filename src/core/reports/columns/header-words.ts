import type { ColumnRole } from '../reading';

/**
 * What columns are called: words in lower case without accents, in English, German, French, Spanish and Dutch. A word
 * with `*` in front or behind may be part of a longer one (`*wert` is in “bestellwert”); several words stand next to
 * each other. To teach a name, add it here. Where two roles fit a header, the one that stands higher has it.
 */
export const ROLE_WORDS = table<{ role: ColumnRole }>([
  {
    role: 'match type',
    words: `
      match, match type, matchtype, matched by, matching, treffer, treffertyp, ubereinstimmung*, keyword
      option, keywordoption, abgleich, correspondance, type de correspondance, concordancia, tipo de
      concordancia, zoektype, overeenkomst*, matchtypen
    `,
  },
  {
    role: 'volume',
    words: `
      volume, search volume, monthly searches, searches, avg monthly searches, average monthly searches,
      suchvolumen, suchanfragen pro monat, volume de recherche, recherches mensuelles, busquedas, volumen,
      volumen de busqueda, busquedas mensuales, zoekvolume, zoekopdrachten per maand
    `,
  },
  { role: 'competition', words: 'competition, wettbewerb, concurrence, competencia, concurrentie' },
  {
    role: 'low bid',
    words: `
      low bid, bid low, lower bid, lowest bid, niedriges gebot, gebot von, enchere basse, puja baja, laag
      bod
    `,
  },
  {
    role: 'high bid',
    words: `
      high bid, bid high, upper bid, highest bid, hohes gebot, gebot bis, enchere haute, puja alta, hoog
      bod
    `,
  },
  { role: 'end date', words: 'end date, ends, enddatum, date de fin, fecha de fin, einddatum' },
  { role: 'status', words: 'status, *status, state, zustand, statut, etat, estado, staat' },
  { role: 'currency', words: 'currency, currency code, wahrung, devise, monnaie, moneda, divisa, valuta' },
  { role: 'bid', words: 'bid, max bid, max cpc, gebot, enchere, puja, bod' },
  {
    role: 'search term',
    words: `
      search term, search terms, search query, search queries, query, queries, searched for, term, terms,
      searches made, shopper query, search phrase, *suchbegriff, *suchbegriffe, *suchanfrage,
      *suchanfragen, suchwort, suchphrase, anfrage, terme de recherche, termes de recherche, terme,
      termes, requete, requetes, recherche, termino de busqueda, terminos de busqueda, termino, terminos,
      consulta, consultas, busqueda, zoekterm*, zoekopdracht*, zoekvraag, zoekvragen
    `,
  },
  {
    role: 'list',
    words: `
      list, list name, shared list, negative list, shared set, liste, listenname, *liste, lista, nom de
      liste, lijst, *lijst
    `,
  },
  {
    role: 'ad group',
    words: `
      ad group, ad groups, adgroup, adgroups, ad set, group, groups, anzeigengruppe*, gruppe, gruppen,
      groupe, groupes, groupe d annonces, groupe dannonces, grupo, grupos, grupo de anuncios,
      advertentiegroep*, groep, groepen
    `,
  },
  {
    role: 'campaign',
    words: 'campaign, campaigns, kampagne*, *kampagne, campagne, campagnes, campana, campanas',
  },
  {
    role: 'keyword',
    words: `
      keyword, keywords, key word, targeting, target, targeted keyword, idea, keyword idea, schlusselwort,
      schlusselworter, stichwort, stichworter, schlagwort, schlagworter, ausrichtung, mot cle, mots cles,
      mot clef, ciblage, palabra clave, palabras clave, segmentacion, zoekwoord*, trefwoord*,
      sleutelwoord*
    `,
  },
  {
    role: 'value',
    words: `
      value, values, revenue, sales, turnover, income, *value, umsatz, umsatze, wert, *wert, erlos,
      erlose, einnahmen, valeur, ventes, chiffre d affaires, chiffre daffaires, ca, revenu, revenus,
      recettes, valor, ingresos, ventas, facturacion, omzet, waarde, *waarde, opbrengst, verkopen
    `,
  },
  {
    role: 'conversions',
    words: `
      conv, convs, conversion, conversions, order, orders, purchase, purchases, bestellung, bestellungen,
      konversion, konversionen, kaufe, auftrage, verkaufe, abschlusse, commande, commandes, achat, achats,
      conversiones, pedido, pedidos, compra, compras, conversie, conversies, bestelling, bestellingen,
      aankoop, aankopen
    `,
  },
  {
    role: 'impressions',
    words: `
      impr, imps, impression, impressions, views, times shown, impressionen, einblendung, einblendungen,
      anzeigen, sichtkontakte, affichage, affichages, impresion, impresiones, vertoning, vertoningen,
      weergave, weergaven
    `,
  },
  {
    role: 'clicks',
    words: 'click, clicks, klick, klicks, clic, clics, clique, klik, kliks, klikken, visits',
  },
  {
    role: 'cost',
    words: `
      cost, costs, spend, spent, spending, amount, amount spent, ad spend, kosten, ausgaben, ausgabe,
      aufwand, *kosten, betrag, cout, couts, depense, depenses, montant, coste, costes, costo, costos,
      gasto, gastos, importe, inversion, uitgaven, uitgave, besteed*
    `,
  },
  { role: 'day', words: 'day, date, days, tag, datum, tage, jour, date du jour, fecha, dia, dag' },
  { role: 'element', words: 'element, level, type, row type, typ, art, ebene, niveau, tipo, nivel, soort' },
]);

/** Names of what is left out though a word of a role is in it, and why. Asked before the roles. */
export const LEFT_OUT = table<{ because: string }>([
  {
    because: 'a ratio, is recomputed',
    words: `
      per, pro, par, por, je, rate, *rate, *quote, quote, taux, tasa, ratio, *ratio, *relation, avg,
      average, mean, average*, durchschn*, moyen*, moy, promedio, medio, gem, gemiddeld*, ctr, cpc, cpa,
      cpm, cvr, cpo, acos, roas, tacos, kur, share, anteil, part, aandeel, percentage, percent, prozent,
      prozentual*, pourcentage, porcentaje, cost of sales, return on, position, rank, rang, positie,
      posicion, cost value, value cost
    `,
  },
  {
    because: 'not needed',
    words: `
      id, ids, budget, *budget, label, labels, url, landing page, zielseite, portfolio, time zone,
      account, konto, compte, cuenta, account name, customer id, start date, campaign type, kampagnentyp,
      type de campagne, tipo de campana, campagnetype, network, device, gerat, appareil, dispositivo,
      apparaat, netzwerk, language, location, country, land, pays
    `,
  },
  {
    because: 'not the figure of the term itself',
    words: `
      all conv*, all value, alle conv*, alle kon*, toutes, todas, cross device, view through, assisted,
      added, excluded, added excluded, hinzugefugt, invalid, ungultig*, new to brand, other, units,
      einheiten, unites, unidades, stuks, quantity, menge
    `,
  },
]);

/** A name as its words, each whole or, with `*`, part of one. */
export type Name = readonly string[];

function table<Entry>(
  rows: readonly (Entry & { words: string })[],
): readonly (Entry & { names: readonly Name[] })[] {
  return rows.map(({ words, ...entry }) => ({
    ...(entry as unknown as Entry),
    names: words.split(',').map((name) => name.trim().split(/\s+/)),
  }));
}
