/** What an item may be about that its owner would rather not have read by many. */
export const TOPICS = ['health', 'hiring', 'money', 'law', 'family'] as const;
export type Topic = (typeof TOPICS)[number];

/**
 * Words that make an item look sensitive, in English, Spanish, Portuguese, German, French and Swedish; folded to plain lower
 * case. A trailing `*` matches any ending.
 */
const WORDS: Record<Topic, readonly string[]> = {
  health: [
    'doctor',
    'dentist',
    'physio*',
    'clinic',
    'hospital',
    'surgery',
    'therap*',
    'scan',
    'medical',
    'diagnos*',
    'psych*',
    'vaccin*',
    'medic*',
    'dentista',
    'terapia',
    'cirugia',
    'consulta',
    'cirurgia',
    'arzt*',
    'zahnarzt*',
    'klinik',
    'krankenhaus',
    'medecin',
    'dentiste',
    'hopital',
    'kine',
    'lakare',
    'tandlakare',
    'sjukhus',
    'vardcentral',
  ],
  hiring: [
    'salary',
    'salaries',
    'dismissal',
    'redundanc*',
    'interview',
    'applicant*',
    'candidate*',
    'hiring',
    'appraisal',
    'severance',
    'salario*',
    'despido',
    'entrevista',
    'demissao',
    'gehalt*',
    'kundigung',
    'bewerb*',
    'salaire*',
    'licenciement',
    'entretien',
    'lon',
    'lonesamtal',
    'uppsagning',
  ],
  money: [
    'loan',
    'mortgage',
    'debt*',
    'insolven*',
    'bankrupt*',
    'tax',
    'takeover',
    'merger',
    'acquisition',
    'prestamo',
    'hipoteca',
    'deuda*',
    'divida*',
    'kredit',
    'schulden',
    'steuer*',
    'pret',
    'dette*',
    'lan',
    'skuld*',
    'skatt',
  ],
  law: [
    'lawyer',
    'solicitor',
    'court',
    'lawsuit',
    'litigation',
    'subpoena',
    'notary',
    'abogad*',
    'tribunal',
    'demanda',
    'advogad*',
    'notario',
    'anwalt*',
    'gericht*',
    'notar',
    'avocat*',
    'proces',
    'advokat*',
    'domstol',
    'jurist',
  ],
  family: [
    'divorce',
    'custody',
    'funeral',
    'school',
    'wedding',
    'family',
    'divorcio',
    'custodia',
    'colegio',
    'escuela',
    'boda',
    'familia',
    'funerais',
    'scheidung',
    'schule',
    'beerdigung',
    'familie',
    'ecole',
    'mariage',
    'famille',
    'obseques',
    'skola',
    'skilsmassa',
    'begravning',
    'familj',
  ],
};

interface Lists {
  readonly whole: ReadonlyMap<string, Topic>;
  readonly stems: readonly (readonly [string, Topic])[];
}

const lists: Lists = {
  whole: new Map(
    TOPICS.flatMap((topic) => WORDS[topic].filter((w) => !w.endsWith('*')).map((w) => [w, topic] as const)),
  ),
  stems: TOPICS.flatMap((topic) =>
    WORDS[topic].filter((w) => w.endsWith('*')).map((w) => [w.slice(0, -1), topic] as const),
  ),
};

/** The first topic a text touches, by whole words without accents or case; `null` where it touches none. */
export function topicOf(text: string): Topic | null {
  const plain = text
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase();
  for (const word of plain.slice(0, 2000).split(/[^\p{L}]+/u)) {
    if (word === '') continue;
    const whole = lists.whole.get(word);
    if (whole) return whole;
    for (const [stem, topic] of lists.stems) if (word.startsWith(stem)) return topic;
  }
  return null;
}
