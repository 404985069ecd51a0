import type { StoredAnswer } from '../stored';

/** The stored answers of the same business in German; made up before any of the messages that they are tried with. */
export const storedGerman: readonly StoredAnswer[] = [
  {
    answers: 'hours',
    title: 'Unsere Öffnungszeiten',
    text: 'Wir haben dienstags bis samstags von neun bis halb sechs geöffnet, sonntags von zehn bis vier. Montags ist geschlossen.',
  },
  {
    answers: 'holidays',
    title: 'Weihnachten und Feiertage',
    text: 'An Weihnachten, am zweiten Feiertag und an Neujahr haben wir geschlossen. An anderen Feiertagen öffnen wir von zehn bis vier.',
  },
  {
    answers: 'delivery-area',
    title: 'Wohin liefern Sie?',
    text: 'Mit unserem Lieferwagen fahren wir bis fünfzehn Kilometer um Lerchheim. Weiter weg schicken wir Pflanzen im Paket. Wie lautet Ihre Postleitzahl?',
  },
  {
    answers: 'delivery-cost',
    title: 'Was kostet der Versand?',
    text: 'Die Lieferung mit dem Wagen kostet 4,50 € und ist ab 60 € frei. Ein Paket kostet 7,90 €, egal was darin ist.',
  },
  {
    answers: 'delivery-day',
    title: 'Wann kommt es an?',
    text: 'Der Wagen fährt dienstags und freitags, bestellen Sie bis zum Mittag davor. Pakete gehen montags und mittwochs weg und brauchen zwei Tage.',
  },
  {
    answers: 'order-where',
    title: 'Wo ist meine Bestellung?',
    text: 'Ich habe nachgesehen: Ihr Paket hat uns verlassen und ist unterwegs. Die Sendungsverfolgung kam mit der Mail, als es verschickt wurde.',
  },
  {
    answers: 'order-change',
    title: 'Bestellung ändern oder stornieren',
    text: 'Solange sie noch nicht unterwegs ist, können Sie eine Bestellung ändern oder stornieren. Schreiben Sie uns die Nummer und was Sie stattdessen möchten.',
  },
  {
    answers: 'damaged',
    title: 'Beschädigt angekommen',
    text: 'Das tut mir leid. Schicken Sie uns ein Foto von Pflanze und Karton, dann bekommen Sie eine neue oder Ihr Geld zurück.',
  },
  {
    answers: 'refund',
    title: 'Rückgabe und Umtausch',
    text: 'Töpfe und Werkzeug nehmen wir unbenutzt innerhalb von 30 Tagen zurück. Pflanzen innerhalb von 14 Tagen, wenn sie gesund sind. Bitte bringen Sie den Kassenbon mit.',
  },
  {
    answers: 'watering',
    title: 'Wie oft soll ich gießen?',
    text: 'Gießen Sie, wenn die obersten zwei Zentimeter Erde trocken sind, im Sommer etwa einmal in der Woche, im Winter alle zwei Wochen. Wasser im Untersetzer bitte ausleeren.',
  },
  {
    answers: 'yellow-leaves',
    title: 'Gelbe Blätter',
    text: 'Gelbe Blätter kommen meist von zu viel Wasser. Lassen Sie die Erde abtrocknen, und stellen Sie die Pflanze heller.',
  },
  {
    answers: 'brown-tips',
    title: 'Braune Spitzen und Ränder',
    text: 'Braune Blattspitzen heißen meist trockene Luft. Stellen Sie die Pflanze weg von der Heizung, und besprühen Sie sie.',
  },
  {
    answers: 'gnats',
    title: 'Trauermücken',
    text: 'Die kleinen schwarzen Fliegen sind Trauermücken. Lassen Sie die Erde trocken werden, und stecken Sie Gelbtafeln hinein.',
  },
  {
    answers: 'mealybugs',
    title: 'Wollläuse',
    text: 'Weiße Watte in den Blattachseln sind Wollläuse. Tupfen Sie sie mit Spiritus ab, und stellen Sie die Pflanze allein.',
  },
  {
    answers: 'repotting',
    title: 'Umtopfen am Tisch',
    text: 'Tobias topft mittwochs und samstags um, bis 30 cm kostet es 6 € und die Erde. Bringen Sie die Pflanze einfach mit.',
  },
  {
    answers: 'workshops',
    title: 'Kurse und Termine',
    text: 'Einmal im Monat bauen wir Flaschengärten, samstags um zehn, 35 € mit Material. Kinder ab acht können mitmachen.',
  },
  {
    answers: 'parking',
    title: 'Parken und Anfahrt',
    text: 'Vor dem Haus sind sechs Parkplätze, an der Mühle noch mehr. Der Bus 12 hält vor der Tür.',
  },
  {
    answers: 'access',
    title: 'Mit Rollstuhl oder Kinderwagen',
    text: 'Alles ist ebenerdig und ohne Stufen, die Gänge sind breit genug. Es gibt eine Toilette für Rollstuhlfahrer.',
  },
  {
    answers: 'dogs',
    title: 'Hunde',
    text: 'Hunde an der Leine sind herzlich willkommen, auch im Café.',
  },
  {
    answers: 'vouchers',
    title: 'Gutscheine zum Verschenken',
    text: 'Gutscheine gibt es ab 10 €, auf Papier oder per Mail. Sie gelten drei Jahre.',
  },
  {
    answers: 'pet-safe',
    title: 'Ungiftig für Haustiere',
    text: 'Für Katzen und Hunde ungiftig sind Calathea, Grünlilie, Farne und Bergpalme. Giftig sind Lilien, Monstera und Efeutute.',
  },
  {
    answers: 'payment',
    title: 'Wie kann man bezahlen?',
    text: 'Wir nehmen bar, Karte und Zahlung mit dem Handy. Online auch Überweisung. Schecks leider nicht.',
  },
  {
    answers: 'trade',
    title: 'Für Firmen und Feste',
    text: 'Für Büros, Hotels und Hochzeiten machen wir gern ein Angebot. Ab zwanzig Pflanzen geben wir zehn Prozent Rabatt.',
  },
  {
    answers: 'reserve',
    title: 'Zurücklegen',
    text: 'Wir legen eine Pflanze bis zu fünf Tage für Sie zurück, ohne Anzahlung. Unter welchem Namen?',
  },
  {
    answers: 'light',
    title: 'Pflanzen für dunkle Räume',
    text: 'Mit wenig Licht kommen Schusterpalme, Glücksfeder und Efeutute zurecht. Ganz ohne Fenster wächst leider nichts.',
  },
];
