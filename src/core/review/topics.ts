/** What an item may be about that its owner would rather not have read by many; `own` is what only their own list knows. */
export const TOPICS = ['health', 'hiring', 'money', 'law', 'family', 'own'] as const;
export type Topic = (typeof TOPICS)[number];

/** A word or a few of somebody's own, folded or not, with a trailing `*` for any ending; `never` takes a word out instead. */
export interface OwnWord {
  readonly word: string;
  readonly topic: Topic | 'never';
}

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
  own: [],
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

/** The words of a text in plain lower case without accents; at most its first 2,000 letters are looked at. */
function wordsOf(text: string): string[] {
  return text
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .slice(0, 2000)
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);
}

/** A word of one's own as it is kept: folded, its words apart by one space, a trailing `*` kept. Empty where no letter is left. */
export function plainWord(word: string): string {
  const plain = wordsOf(word).join(' ');
  return plain && word.trim().endsWith('*') ? `${plain}*` : plain;
}

/**
 * The first topic a text touches, by whole words without accents or case; `null` where it touches none. One's own words (as
 * `plainWord` gives them) go before the list's: they name a topic for more words, or take words out.
 */
export function topicOf(text: string, own: readonly OwnWord[] = []): Topic | null {
  const words = wordsOf(text);
  const spaced = ` ${words.join(' ')} `;
  const matches = ({ word }: OwnWord): boolean =>
    spaced.includes(word.endsWith('*') ? ` ${word.slice(0, -1)}` : ` ${word} `);
  const named = own.find((w) => w.topic !== 'never' && matches(w));
  if (named && named.topic !== 'never') return named.topic;
  const out = own.filter((w) => w.topic === 'never');
  const takenOut = (word: string): boolean =>
    out.some((w) => (w.word.endsWith('*') ? word.startsWith(w.word.slice(0, -1)) : w.word === word));
  for (const word of words) {
    if (takenOut(word)) continue;
    const whole = lists.whole.get(word);
    if (whole) return whole;
    for (const [stem, topic] of lists.stems) if (word.startsWith(stem)) return topic;
  }
  return null;
}
