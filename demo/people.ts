/** The people of Cloudmoor Trust: invented, like everything about them. */
export interface SamplePerson {
  readonly handle: string;
  readonly name: string;
  readonly role: string;
  readonly site: string;
  readonly zone?: string;
  readonly colour: number;
  readonly administrator?: boolean;
  /** Set for a role account: a desk that several people answer at. */
  readonly desk?: boolean;
  /** Set for a room or a thing, and how many a room holds. */
  readonly resource?: 'room' | 'thing';
  readonly size?: number;
}

const DOMAIN = 'cloudmoor.example';
export const addressFor = (handle: string): string => {
  const person = PEOPLE.find((p) => p.handle === handle);
  if (!person) return `${handle}@${DOMAIN}`;
  const plain = person.name
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .split(' ');
  return `${plain[0]?.[0]}.${plain.at(-1)}@${DOMAIN}`;
};

/** An invented number at their place; rooms, things and rangers out on the moor have none. */
export function phoneFor(person: SamplePerson): string {
  if (person.resource || person.role === 'Ranger') return '';
  const last = String(101 + PEOPLE.indexOf(person));
  return person.site === 'Bogotá' ? `+57 601 000 0${last}` : `+351 210 000 ${last}`;
}

export const PEOPLE: readonly SamplePerson[] = [
  { handle: 'ines', name: 'Inés Varga', role: 'Director', site: 'Ridge House', colour: 0, administrator: true },
  { handle: 'tomas', name: 'Tomas Lindqvist', role: 'Assistant to the director', site: 'Ridge House', colour: 2 },
  { handle: 'bruno', name: 'Bruno Keane', role: 'Finance director', site: 'Ridge House', colour: 1 },
  { handle: 'amara', name: 'Amara Reyes', role: 'Field lead', site: 'Marsh Lab', colour: 3 },
  { handle: 'dario', name: 'Dario Venn', role: 'Buildings', site: 'Seed Store', colour: 4 },
  { handle: 'oona', name: 'Oona Marsh', role: 'Office manager', site: 'Marsh Lab', colour: 5 },
  { handle: 'pim', name: 'Pim Adeyemi', role: 'Assistant, new', site: 'Ridge House', colour: 3 },
  {
    handle: 'lucia',
    name: 'Lucía Pardo',
    role: 'Uplands programme',
    site: 'Bogotá',
    zone: 'America/Bogota',
    colour: 1,
  },
  { handle: 'mateo', name: 'Mateo Rincón', role: 'Water rights', site: 'Bogotá', zone: 'America/Bogota', colour: 2 },
  { handle: 'hedda', name: 'Hedda Sorrel', role: 'Head of science', site: 'Marsh Lab', colour: 5 },
  { handle: 'yusuf', name: 'Yusuf Tarn', role: 'Catchment modelling', site: 'Marsh Lab', colour: 4 },
  { handle: 'greta', name: 'Greta Holm', role: 'Seed bank', site: 'Seed Store', colour: 2 },
  { handle: 'nils', name: 'Nils Farrow', role: 'Seed bank', site: 'Seed Store', colour: 1 },
  { handle: 'ayesha', name: 'Ayesha Lund', role: 'Communications', site: 'Ridge House', colour: 0 },
  { handle: 'tobias', name: 'Tobias Fell', role: 'Fundraising', site: 'Ridge House', colour: 3 },
  { handle: 'wren', name: 'Wren Castellan', role: 'People and pay', site: 'Ridge House', colour: 5 },
  { handle: 'ivo', name: 'Ivo Brandt', role: 'Accounts', site: 'Ridge House', colour: 4 },
  { handle: 'sanna', name: 'Sanna Moor', role: 'Accounts', site: 'Ridge House', colour: 2 },
  { handle: 'kofi', name: 'Kofi Beck', role: 'Ranger', site: 'North Hut', colour: 1 },
  { handle: 'elin', name: 'Elin Garth', role: 'Ranger', site: 'North Hut', colour: 0 },
  { handle: 'rafael', name: 'Rafael Quill', role: 'Ranger', site: 'North Hut', colour: 3 },
  { handle: 'maren', name: 'Maren Stoat', role: 'Volunteers', site: 'North Hut', colour: 4 },
  { handle: 'jonas', name: 'Jonas Heath', role: 'Sensors', site: 'Marsh Lab', colour: 5 },
  { handle: 'priya', name: 'Priya Dale', role: 'Water chemistry', site: 'Marsh Lab', colour: 1 },
  { handle: 'otto', name: 'Otto Linn', role: 'Peat and soils', site: 'Marsh Lab', colour: 2 },
  { handle: 'salome', name: 'Salomé Ibarra', role: 'Partnerships', site: 'Bogotá', zone: 'America/Bogota', colour: 0 },
  { handle: 'felix', name: 'Felix Bray', role: 'Legal', site: 'Ridge House', colour: 4 },
  { handle: 'noor', name: 'Noor Ashby', role: 'Systems', site: 'Ridge House', colour: 3, administrator: true },
  { handle: 'brigid', name: 'Brigid Cairn', role: 'Front desk', site: 'Ridge House', colour: 5 },
  { handle: 'lars', name: 'Lars Pike', role: 'Vehicles and stores', site: 'Seed Store', colour: 1 },
  {
    handle: 'south-room',
    name: 'South room',
    role: '',
    site: 'Ridge House',
    colour: 2,
    resource: 'room',
    size: 14,
  },
  { handle: 'north-room', name: 'North room', role: '', site: 'Ridge House', colour: 2, resource: 'room', size: 6 },
  { handle: 'marsh-hall', name: 'Marsh hall', role: '', site: 'Marsh Lab', colour: 2, resource: 'room', size: 60 },
  { handle: 'field-van', name: 'Field van', role: '', site: 'Seed Store', colour: 1, resource: 'thing' },
  { handle: 'visits', name: 'Visits Desk', role: 'School and site visits', site: 'Ridge House', colour: 2, desk: true },
];

/** Partners of the trust, outside it. */
export const OUTSIDE = [
  { address: 'marta@quill-audit.example', name: 'Marta Quill' },
  { address: 'p.oduya@water-ministry.example', name: 'Perpetua Oduya' },
] as const;

/** The trust's own domains: people's, and that of its seed shop. */
export const DOMAINS = [DOMAIN, 'cloudmoor-seeds.example'] as const;

export const GROUPS: readonly {
  readonly name: string;
  readonly members: readonly string[];
  readonly within?: readonly string[];
}[] = [
  { name: 'Leadership', members: ['ines', 'bruno', 'hedda', 'lucia', 'wren', 'felix'] },
  { name: 'Marsh Lab team', members: ['amara', 'oona', 'hedda', 'yusuf', 'jonas', 'priya', 'otto'] },
  { name: 'Rangers', members: ['kofi', 'elin', 'rafael', 'maren'] },
  { name: 'Finance', members: ['bruno', 'ivo', 'sanna'] },
  { name: 'Field programme', members: ['lucia'], within: ['Marsh Lab team', 'Rangers'] },
];
