/** Made-up visitors of Quillfern Nursery; numbers from the range set aside for drama. */
export interface Visitor {
  name?: string;
  email?: string;
  phone?: string;
  /** By which clock they live; the business's where nothing is said. */
  zone?: string;
  /** They came by the link, from no page of the website. */
  byLink?: boolean;
}

const named = (name: string, more: Omit<Visitor, 'name'> = {}): Visitor => ({ name, ...more });

const mail = (name: string): Visitor => {
  const local = name.toLowerCase().replace(/[^a-z]+/g, '.');
  return { name, email: `${local}@post.example` };
};

export const visitors: readonly Visitor[] = [
  mail('Ada Lindqvist'),
  mail('Bram Okafor'),
  named('Cosima'),
  mail('Dewi Prosser'),
  {},
  named('Edda Marsh', { phone: '07700 900118' }),
  mail('Farah Nouri'),
  mail('Gil Santoro'),
  named('Hanne'),
  mail('Idris Bello'),
  mail('Juno Whitlock'),
  named('Kit', { phone: '07700 900231' }),
  mail('Lotte Brandt'),
  mail('Milo Achterberg'),
  { zone: 'Europe/Lisbon', byLink: true },
  mail('Nia Gwynne'),
  named('Orla Finn', { email: 'orla@finn.example', phone: '07700 900342' }),
  mail('Pavel Hora'),
  mail('Quentin Dace'),
  named('Rosa'),
  mail('Sunniva Holt'),
  mail('Tam Nguyen'),
  mail('Una Kovac'),
  named('Viggo', { phone: '07700 900455' }),
  mail('Wanda Leigh'),
  {},
  mail('Xavi Puig'),
  mail('Yara Haddad'),
  mail('Zeno Falk'),
  named('Anouk'),
  mail('Bertil Storm'),
  mail('Celia Ormond'),
  mail('Dara Quist'),
  named('Emrys', { phone: '020 7946 0133' }),
  mail('Frida Lunt'),
  mail('Gwen Tarrow'),
  { zone: 'America/Halifax', byLink: true },
  mail('Hugo Pennant'),
  mail('Ilse Roth'),
  mail('Jonas Fell'),
  named('Ada Lindqvist'),
  mail('Kaja Bright'),
  mail('Leif Arden'),
  mail('Mabel Stow'),
  named('Noor'),
  mail('Otis Crane'),
  mail('Petra Vale'),
  mail('Rafe Donnelly'),
  {},
  mail('Signe Moor'),
  mail('Theo Blackett'),
  mail('Ursa Kline'),
  named('Vera', { phone: '07700 900677' }),
  mail('Wim de Graaf'),
  { zone: 'Europe/Lisbon', byLink: true },
  mail('Abel Thorne'),
  mail('Britta Sand'),
  {},
  mail('Daisy Rook'),
  mail('Eskil Farrow'),
];
