/** The words of a language that a sentence about an item is made of. All in small letters, without accents. */
export interface Words {
  readonly weekdays: readonly (readonly string[])[];
  readonly months: readonly (readonly string[])[];
  readonly today: readonly string[];
  readonly tomorrow: readonly string[];
  /** The day after tomorrow: each in one or more words. */
  readonly dayAfter: readonly string[];
  readonly next: readonly string[];
  readonly at: readonly string[];
  /** Before a place; `at` too, where what follows is no time. */
  readonly in: readonly string[];
  /** Before the calendar it goes into: each in one or more words. */
  readonly into: readonly string[];
  readonly with: readonly string[];
  readonly and: readonly string[];
  readonly on: readonly string[];
  readonly from: readonly string[];
  readonly to: readonly string[];
  readonly for: readonly string[];
  readonly until: readonly string[];
  readonly every: readonly string[];
  readonly second: readonly string[];
  readonly the: readonly string[];
  /** First to fifth, then last. */
  readonly ordinals: readonly (readonly string[])[];
  readonly workday: readonly string[];
  readonly day: readonly string[];
  readonly weekday: readonly string[];
  readonly week: readonly string[];
  readonly month: readonly string[];
  readonly year: readonly string[];
  readonly daily: readonly string[];
  readonly weekly: readonly string[];
  readonly fortnightly: readonly string[];
  readonly monthly: readonly string[];
  readonly yearly: readonly string[];
  readonly times: readonly string[];
  readonly noon: readonly string[];
  readonly hours: readonly string[];
  readonly minutes: readonly string[];
  readonly half: readonly string[];
  readonly of: readonly string[];
  /** All day, as it is said: each in one or more words. */
  readonly allDay: readonly string[];
  readonly private: readonly string[];
  readonly open: readonly string[];
  readonly outline: readonly string[];
  readonly now: readonly string[];
  readonly tentative: readonly string[];
  readonly away: readonly string[];
  readonly reachable: readonly string[];
  readonly free: readonly string[];
}

export const ENGLISH: Words = {
  weekdays: [
    ['mon', 'monday', 'mondays'],
    ['tue', 'tues', 'tuesday', 'tuesdays'],
    ['wed', 'weds', 'wednesday', 'wednesdays'],
    ['thu', 'thur', 'thurs', 'thursday', 'thursdays'],
    ['fri', 'friday', 'fridays'],
    ['sat', 'saturday', 'saturdays'],
    ['sun', 'sunday', 'sundays'],
  ],
  months: [
    ['jan', 'january'],
    ['feb', 'february'],
    ['mar', 'march'],
    ['apr', 'april'],
    ['may'],
    ['jun', 'june'],
    ['jul', 'july'],
    ['aug', 'august'],
    ['sep', 'sept', 'september'],
    ['oct', 'october'],
    ['nov', 'november'],
    ['dec', 'december'],
  ],
  today: ['today'],
  tomorrow: ['tomorrow', 'tmrw'],
  dayAfter: ['the day after tomorrow', 'day after tomorrow'],
  next: ['next'],
  at: ['at', '@'],
  in: ['in'],
  into: ['into the calendar', 'in the calendar', 'into'],
  with: ['with'],
  and: ['and', '&'],
  on: ['on'],
  from: ['from'],
  to: ['to', 'till', 'until'],
  for: ['for'],
  until: ['until', 'till'],
  every: ['every', 'each'],
  second: ['second', 'other', '2nd'],
  the: ['the'],
  ordinals: [['first', '1st'], ['second', '2nd'], ['third', '3rd'], ['fourth', '4th'], ['fifth', '5th'], ['last']],
  workday: ['weekday', 'workday'],
  day: ['day', 'days'],
  weekday: ['weekday', 'weekdays', 'workday'],
  week: ['week', 'weeks'],
  month: ['month', 'months'],
  year: ['year', 'years'],
  daily: ['daily'],
  weekly: ['weekly'],
  fortnightly: ['fortnightly'],
  monthly: ['monthly'],
  yearly: ['yearly', 'annually'],
  times: ['times'],
  noon: ['noon', 'midday'],
  hours: ['h', 'hr', 'hrs', 'hour', 'hours'],
  minutes: ['m', 'min', 'mins', 'minute', 'minutes'],
  half: ['half an hour'],
  of: [],
  allDay: ['all day'],
  private: ['private', 'privately'],
  open: ['open to all'],
  outline: ['outline only'],
  now: ['now', 'right now'],
  tentative: ['tentative', 'tentatively', 'perhaps'],
  away: ['away'],
  reachable: ['away but reachable', 'away, reachable'],
  free: ['shown free', 'as free'],
};

export const PORTUGUESE: Words = {
  weekdays: [
    ['seg', 'segunda', 'segundas', 'segunda-feira', 'segundas-feiras'],
    ['ter', 'terca', 'tercas', 'terca-feira', 'tercas-feiras'],
    ['qua', 'quarta', 'quartas', 'quarta-feira', 'quartas-feiras'],
    ['qui', 'quinta', 'quintas', 'quinta-feira', 'quintas-feiras'],
    ['sex', 'sexta', 'sextas', 'sexta-feira', 'sextas-feiras'],
    ['sab', 'sabado', 'sabados'],
    ['dom', 'domingo', 'domingos'],
  ],
  months: [
    ['jan', 'janeiro'],
    ['fev', 'fevereiro'],
    ['mar', 'marco'],
    ['abr', 'abril'],
    ['mai', 'maio'],
    ['jun', 'junho'],
    ['jul', 'julho'],
    ['ago', 'agosto'],
    ['set', 'setembro'],
    ['out', 'outubro'],
    ['nov', 'novembro'],
    ['dez', 'dezembro'],
  ],
  today: ['hoje'],
  tomorrow: ['amanha'],
  dayAfter: ['depois de amanha'],
  next: ['proxima', 'proximo'],
  at: ['as', 'a', '@'],
  in: ['em', 'no', 'na'],
  into: ['para o calendario', 'no calendario', 'para o', 'para a', 'para'],
  with: ['com'],
  and: ['e', '&'],
  on: ['na', 'no', 'em', 'a'],
  from: ['das', 'de', 'da'],
  to: ['as', 'ate', 'a'],
  for: ['durante', 'por'],
  until: ['ate'],
  every: ['todas', 'todos', 'cada'],
  second: [],
  the: ['a', 'o', 'na', 'no'],
  ordinals: [
    ['primeira', 'primeiro'],
    ['segunda', 'segundo'],
    ['terceira', 'terceiro'],
    ['quarta', 'quarto'],
    ['quinta', 'quinto'],
    ['ultima', 'ultimo'],
  ],
  workday: ['util'],
  day: ['dia', 'dias'],
  weekday: ['uteis'],
  week: ['semana', 'semanas'],
  month: ['mes', 'meses'],
  year: ['ano', 'anos'],
  daily: ['diariamente'],
  weekly: ['semanalmente'],
  fortnightly: ['quinzenalmente'],
  monthly: ['mensalmente'],
  yearly: ['anualmente'],
  times: ['vezes'],
  noon: ['meio-dia'],
  hours: ['h', 'hora', 'horas'],
  minutes: ['m', 'min', 'minuto', 'minutos'],
  half: ['meia hora'],
  of: ['de'],
  allDay: ['todo o dia', 'o dia todo', 'o dia inteiro', 'dia inteiro'],
  private: ['privado', 'privada'],
  open: ['aberto a todos', 'aberta a todos'],
  outline: ['so o essencial'],
  now: ['agora', 'agora mesmo'],
  tentative: ['provisorio', 'provisoria', 'talvez'],
  away: ['ausente', 'fora'],
  reachable: ['ausente mas contactavel', 'ausente, contactavel'],
  free: ['como livre'],
};
