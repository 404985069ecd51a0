import type { Concepts } from './table';

/** The same few things in the other languages of the doors. */
export const fr: Concepts = {
  words: {
    open: 'ouvert ouverte ouverture ouvrir ouvrez horaire horaires fermé fermer fermeture',
    holiday: 'férié fériés noël pâques vacances',
    deliver: 'livrer livraison livrez expédition expédier envoyer envoi port transport',
    cost: 'prix coût coûte coûter tarif tarifs frais cher payer',
    order: 'commande commander commandé achat acheté',
    broken: 'cassé cassée abîmé abîmée endommagé brisé',
    return: 'retour retourner rembourser remboursement échange échanger',
    park: 'parking garer stationner stationnement voiture',
    pay: 'payer paiement carte espèces chèque virement',
    gift: 'cadeau bon chèque-cadeau offrir',
    reserve: 'réserver réservation garder',
    class: 'atelier ateliers cours stage',
  },
  phrases: [[/\bcombien\b/, 'cost']],
};

export const es: Concepts = {
  words: {
    open: 'abierto abren abrir apertura horario horarios cerrado cierran cierre',
    holiday: 'festivo festivos navidad pascua vacaciones',
    deliver: 'entrega entregar entregan envío envíos enviar envían reparto transporte',
    cost: 'precio precios cuesta costo coste tarifa pagar caro',
    order: 'pedido pedir compra comprado',
    broken: 'roto rota dañado dañada',
    return: 'devolver devolución reembolso cambiar cambio',
    park: 'aparcar aparcamiento estacionar coche',
    pay: 'pagar pago tarjeta efectivo transferencia',
    gift: 'regalo vale bono',
    reserve: 'reservar reserva guardar',
    class: 'taller talleres curso clase',
  },
  phrases: [[/\bcuánto\b|\bcuanto\b/, 'cost']],
};

export const it: Concepts = {
  words: {
    open: 'aperto aperti apertura aprite orario orari chiuso chiudete chiusura',
    holiday: 'festivo festivi natale pasqua ferie',
    deliver: 'consegna consegnate consegnare spedizione spedire spedite inviare trasporto',
    cost: 'prezzo prezzi costo costa tariffa pagare caro',
    order: 'ordine ordinato acquisto comprato',
    broken: 'rotto rotta danneggiato danneggiata',
    return: 'reso restituire rimborso cambio cambiare',
    park: 'parcheggio parcheggiare auto',
    pay: 'pagare pagamento carta contanti bonifico',
    gift: 'regalo buono',
    reserve: 'prenotare prenotazione tenere',
    class: 'corso corsi laboratorio',
  },
  phrases: [[/\bquanto\b/, 'cost']],
};

export const nl: Concepts = {
  words: {
    open: 'open openingstijden geopend sluit sluiten dicht gesloten',
    holiday: 'feestdag feestdagen kerst pasen nieuwjaar',
    deliver: 'bezorgen bezorging leveren levering verzenden verzending versturen sturen',
    cost: 'kosten kost prijs prijzen tarief duur verzendkosten',
    order: 'bestelling bestellen besteld gekocht',
    broken: 'kapot beschadigd gebroken stuk',
    return: 'retour retourneren terugsturen ruilen terugbetaling',
    park: 'parkeren parkeerplaats auto',
    pay: 'betalen betaling pin pinnen contant overschrijving',
    gift: 'cadeau cadeaubon bon',
    reserve: 'reserveren reservering bewaren',
    class: 'cursus workshop les',
  },
  phrases: [[/\bhoeveel\b|\bhoe duur\b/, 'cost']],
};

export const pl: Concepts = {
  words: {
    open: 'otwarte otwarty czynne czynny godziny otwarcia zamknięte zamknięty',
    holiday: 'święta święto boże narodzenie wielkanoc',
    deliver: 'dostawa dostawy dostarczacie wysyłka wysyłki wysłać przesyłka kurier',
    cost: 'cena ceny koszt kosztuje kosztu opłata',
    order: 'zamówienie zamówienia zamówić kupiłem kupiłam',
    broken: 'uszkodzony uszkodzona zepsuty pęknięty rozbity',
    return: 'zwrot zwrócić zwroty wymiana wymienić',
    park: 'parking parkować zaparkować samochód',
    pay: 'płatność zapłacić płacić kartą karta gotówka gotówką przelew',
    gift: 'bon prezent upominkowy',
    reserve: 'rezerwacja zarezerwować odłożyć',
    class: 'warsztaty kurs zajęcia',
  },
  phrases: [[/\bile\b/, 'cost']],
};

export const pt: Concepts = {
  words: {
    open: 'aberto abrem abertura horário horários fechado fecham fecho',
    holiday: 'feriado feriados natal páscoa férias',
    deliver: 'entrega entregar entregam envio enviar enviam transporte portes',
    cost: 'preço preços custa custo tarifa pagar caro',
    order: 'encomenda encomendar encomendei compra comprei',
    broken: 'partido partida danificado danificada quebrado',
    return: 'devolver devolução reembolso troca trocar',
    park: 'estacionar estacionamento carro',
    pay: 'pagar pagamento cartão dinheiro transferência',
    gift: 'prenda vale presente oferta',
    reserve: 'reservar reserva guardar',
    class: 'curso oficina aula',
  },
  phrases: [[/\bquanto\b/, 'cost']],
};
