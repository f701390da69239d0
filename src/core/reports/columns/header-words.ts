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
      option, keywordoption, abgleich, abgleichtyp, abgleichsart, match art, type de ciblage,
      correspondance, type de correspondance, concordancia, tipo de
      concordancia, zoektype, overeenkomst*, matchtypen
    `,
  },
  {
    role: 'volume',
    words: `
      volume, volumes, search volume, monthly searches, searches per month, searches, avg monthly searches, average monthly searches,
      suchvolumen, suchvolumina, suchanfragen pro monat, suchanfragen im monat, monatliche suchanfragen,
      monatl suchanfragen, monatssuchanfragen, durchschnittliche monatliche suchanfragen,
      durchschn monatl suchanfragen, suchen pro monat, monatliches suchvolumen,
      durchschnittliches suchvolumen, volume de recherche, volumes de recherche, recherches par mois, recherches mensuelles moyennes, volume mensuel, recherches mensuelles, busquedas, volumen,
      volumen de busqueda, volumen de busquedas, busquedas mensuales, busquedas al mes,
      busquedas por mes, promedio de busquedas mensuales, zoekvolume, zoekvolumes, zoekopdrachten per
      maand, maandelijkse zoekopdrachten, maandelijks zoekvolume
    `,
  },
  {
    role: 'competition',
    words: 'competition, wettbewerb*, konkurrenz, concurrence, competencia, concurrentie*',
  },
  {
    role: 'low bid',
    words: `
      low bid, bid low, lower bid, lowest bid, niedriges gebot, niedrigstes gebot, mindestgebot,
      gebot von, unteres gebot, enchere basse, enchere minimale, puja baja,
      puja minima, laag bod, laagste bod, minimumbod
    `,
  },
  {
    role: 'high bid',
    words: `
      high bid, bid high, upper bid, highest bid, hohes gebot, hochstes gebot, gebot bis,
      oberes gebot, enchere haute, enchere maximale, puja
      alta, puja maxima, hoog bod, hoogste bod
    `,
  },
  {
    role: 'impression share',
    words: `
      impression share, impr share, search impression share, search impr share, share of impressions,
      impressionsanteil, anteil an impressionen, anteil der impressionen, anteil an den impressionen,
      part d impressions, part des impressions, part dimpressions, cuota de impresiones, vertoningsaandeel
    `,
  },
  {
    role: 'quality',
    words: 'quality*, qualitat*, qualite, note de qualite, calidad, nivel de calidad, kwaliteit*',
  },
  {
    role: 'end date',
    words: 'end date, ends, enddatum, endet am, endtag, date de fin, fecha de fin, fecha final, einddatum',
  },
  { role: 'status', words: 'status, *status, status*, state, zustand, statut, etat, estado, staat' },
  {
    role: 'currency',
    words:
      'currency*, *currency, wahrung*, *wahrung, devise*, *devise, monnaie*, moneda*, divisa*, valuta*, *valuta, munteenheid, muntsoort, munt',
  },
  {
    role: 'bid',
    words: 'bid, bids, max bid, max cpc, gebot*, hochstgebot, *gebot, enchere*, puja*, bod, *bod',
  },
  {
    role: 'search term',
    words: `
      search term, search terms, search query, search queries, query, queries, searched for, term, terms,
      searches made, shopper query, search phrase, *suchbegriff, *suchbegriffe, suchbegriff*, *suchanfrage,
      *suchanfragen, suchanfrage*, suchworter, suchterm, suchterme, suchausdruck, suchwort, suchphrase, anfrage, terme de recherche, termes de recherche, terme,
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
      ad group, ad groups, adgroup, adgroups, ad set, group, groups, *anzeigengruppe, anzeigengruppe*, gruppe, gruppen,
      groupe, groupes, groupe d annonces, groupe dannonces, grupo, grupos, grupo de anuncios,
      advertentiegroep*, groep, groepen
    `,
  },
  {
    role: 'campaign',
    words: 'campaign*, *campaign, kampagne*, *kampagne, campagne*, *campagne, campana*',
  },
  {
    role: 'keyword',
    words: `
      keyword*, key word, key words, targeting, target, targeted keyword, idea, keyword idea, schlusselwort*,
      stichwort*, schlagwort*, suchwortgruppe, ausrichtung*, mot cle, mots cles,
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
      conv, convs, conversion, conversions, order, orders, purchase, purchases, *bestellung, *bestellungen,
      konversion, konversionen, konversionszahl, bestellanzahl, anzahl bestellungen, kaufe, auftrage, verkaufe, abschlusse, commande, commandes, achat, achats,
      conversiones, pedido, pedidos, compra, compras, conversie, conversies, bestelling, bestellingen,
      aankoop, aankopen
    `,
  },
  {
    role: 'impressions',
    words: `
      impr, imps, impression, impressions, views, times shown, impressionen, impressionenzahl, *einblendung, *einblendungen,
      anzeigen, sichtkontakte, affichage, affichages, impresion, impresiones, vertoning, vertoningen,
      weergave, weergaven
    `,
  },
  {
    role: 'clicks',
    words:
      'click, clicks, klick, klicks, *klicks, klickzahl*, klickanzahl, clic, clics, clique, klik, kliks, klikken, aantal klikken, visits',
  },
  {
    role: 'cost',
    words: `
      cost, costs, spend, *spend, spent, spending, amount, amount spent, ad spend, kosten, *ausgaben, ausgabe,
      aufwand, *aufwand, *kosten, betrag, cout, couts, depense, depenses, montant, coste, costes, costo, costos,
      gasto, gastos, importe, inversion, uitgaven, uitgave, besteed*
    `,
  },
  {
    role: 'day',
    words:
      'day, date, days, tag, datum, berichtsdatum, tagesdatum, kalenderdatum, tage, kalendertag, berichtstag, jour, date du jour, fecha, dia, dag',
  },
  {
    role: 'other conversions',
    words: `
      all conv*, view through conv*, cross device conv*, lead, leads, sign ups, signups, registrations, calls,
      phone calls, subscriptions, alle conversions, alle konversionen, anmeldungen, anrufe, registrierungen,
      inscriptions, appels, registros, llamadas, inschrijvingen, aanmeldingen, telefoontjes
    `,
  },
  { role: 'element', words: 'element, level, type, row type, typ, art, ebene, niveau, tipo, nivel, soort' },
]);

/** Names of what is left out though a word of a role is in it, and why. Asked before the roles. */
export const LEFT_OUT = table<{ because: string }>([
  {
    because: 'a ratio, is recomputed',
    words: `
      per, pro, par, por, je, rate, *rate, *quote, *preis, *anteil, *kurs, quote, taux, tasa, ratio, *ratio, *relation, avg,
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
      account, konto, *konto, kontoname, compte, cuenta, account name, startdatum, begindatum, customer id, start date, campaign type, kampagnentyp,
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
