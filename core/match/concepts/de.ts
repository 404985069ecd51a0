import type { Concepts } from './table';

/** What people mean by several words, as small businesses are asked it in German. */
export const de: Concepts = {
  words: {
    open: 'offen auf öffnung öffnungszeit öffnungszeiten öffnen geöffnet schließen schließt geschlossen zu feierabend',
    holiday:
      'feiertag feiertage weihnachten weihnachtstag ostern pfingsten neujahr silvester heiligabend',
    deliver:
      'liefern liefert lieferung lieferungen geliefert lieferzeit ausliefern versand versenden verschicken verschickt schicken schickt senden sendung zustellung zustellen transport lieferwagen ausfahren',
    parcel: 'paket pakete päckchen sendung ware karton lieferung',
    cost: 'kosten kostet preis preise gebühr gebühren teuer günstig billig wert bestellwert betrag',
    arrive: 'ankommen angekommen ankunft kommt eintreffen eingetroffen erhalten da',
    order: 'bestellen bestellt bestellung bestellungen auftrag gekauft kauf',
    change: 'ändern änderung stornieren storno widerrufen widerruf tauschen absagen umändern',
    broken: 'kaputt beschädigt zerbrochen gebrochen scherben defekt schaden zerstört bruch',
    return:
      'rückgabe zurückgeben zurück zurücknehmen umtausch umtauschen erstattung retoure retournieren zurückschicken',
    tracking:
      'sendungsnummer sendungsverfolgung verfolgen verloren bleibt verbleib eingetroffen unterwegs',
    water: 'gießen gieße gießt wasser wässern bewässern',
    insect:
      'fliege fliegen mücke mücken trauermücken trauermücke insekt insekten laus läuse wollläuse schädling schädlinge befallen',
    repot: 'umtopfen umtopfe umgetopft umzutopfen topf töpfe eintopfen',
    class: 'kurs kurse workshop workshops seminar termin termine mitmachen',
    park: 'parken parkplatz parkplätze parkmöglichkeit parkmöglichkeiten auto bus anfahrt',
    access:
      'rollstuhl kinderwagen barrierefrei ebenerdig stufe stufen treppe rampe gehhilfe rollator',
    dog: 'hund hunde welpe dackel',
    pet: 'haustier haustiere katze katzen kätzchen kater hund hunde',
    gift: 'gutschein gutscheine geschenk geschenke geschenkgutschein geschenkgutscheine schenken verschenken',
    toxic: 'giftig ungiftig gift unbedenklich gefährlich harmlos',
    pay: 'zahlen bezahlen zahlung zahlungsart zahlungsarten kartenzahlung karte bar bargeld überweisung rechnung ec handy',
    trade:
      'firma firmen büro büros hotel hotels hochzeit hochzeiten fest feste veranstaltung rabatt angebot begrünung gewerblich großhandel',
    reserve: 'reservieren reserviert reservierung zurücklegen zurückstellen aufheben',
    dark: 'dunkel dunkle dunkler dunkles schatten schattig licht lichtarm fenster norden sonne',
    book: 'buchen buchung termin termine anmelden anmeldung',
    size: 'größe groß maß maße höhe breite',
    stock: 'vorrätig lieferbar verfügbar bestand lager',
    work: 'stelle stellen job jobs bewerbung bewerben praktikum ausbildung',
    guarantee: 'garantie gewährleistung',
    repair: 'reparatur reparieren repariert',
    area: 'wohin umgebung umkreis ortschaft ortschaften außerhalb kilometer ausland',
    leaf: 'blatt blätter blättern blattrand blattränder blattspitzen',
    tip: 'spitze spitzen blattspitzen rand ränder blattränder',
  },
  phrases: [
    [/\bwie ?viel\b|\bwie (?:teuer|hoch)\b/, 'cost'],
    [/\bgeld zurück\b|\bnehmen .{0,30}zurück\b/, 'return'],
    [
      /\bbis wann\b|\b(?:habt|haben|seid|sind) (?:ihr|sie) .{0,40}\b(?:auf|offen|geöffnet|da)\b|\bmach\w* .{0,20}\bzu\b/,
      'open',
    ],
    [
      /\bwo (?:ist|bleibt)\b|\bnichts (?:gekommen|angekommen)\b|\bnicht (?:angekommen|eingetroffen|da)\b/,
      'tracking',
    ],
    [/\bzwischen den jahren\b/, 'holiday'],
    [/\bmit (?:dem |der )?(?:hund|hunden)\b/, 'dog'],
    [/\bwenig licht\b|\bohne (?:fenster|licht|sonne)\b/, 'dark'],
  ],
};
