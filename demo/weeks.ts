import type { Kind, Status, Visibility } from '../src/core/calendar/index.ts';

/** One thing in a sample week: weekday 0 (Monday) to 6, from and to on the clock. Week 0 is the current one. */
export interface Sample {
  readonly week: number;
  readonly day: number;
  readonly at: string;
  readonly to: string;
  readonly title: string;
  readonly place?: string;
  readonly kind?: Kind;
  readonly shows?: Status;
  readonly visibility?: Visibility;
  readonly with?: readonly string[];
  readonly notes?: string;
  readonly link?: string;
  readonly briefing?: string;
  readonly by?: string;
  readonly zone?: string;
  readonly days?: number;
  readonly important?: boolean;
  readonly answer?: 'accepted' | 'tentative' | 'needs-action' | 'declined';
  readonly callers?: string;
}
/** One that comes every week (or as `rule` says) from `weeks` before to as many after. */
export interface Weekly extends Omit<Sample, 'week'> {
  readonly rule?: string;
}

const ROOM = 'https://rooms.cloudmoor.example/';

export const INES_WEEKLY: readonly Weekly[] = [
  { day: 0, at: '08:30', to: '09:10', title: 'Week with Tomas', place: 'Ridge House, her room', with: ['tomas'], by: 'tomas' },
  { day: 2, at: '08:45', to: '09:40', title: 'Leadership', place: 'Ridge House, south room', with: ['bruno', 'hedda', 'wren', 'felix', 'lucia'], by: 'tomas', link: `${ROOM}leadership` },
  { day: 4, at: '09:00', to: '09:50', title: 'Week ahead', place: 'Ridge House', with: ['tomas'], by: 'tomas' },
  { day: 1, at: '17:30', to: '18:15', title: 'Call, Bogotá', link: `${ROOM}bogota`, with: ['lucia', 'mateo'], by: 'tomas' },
  { day: 0, at: '08:00', to: '18:00', title: 'At Ridge House', place: 'Ridge House', kind: 'whereabouts', shows: 'free', visibility: 'open', by: 'tomas' },
  { day: 1, at: '08:00', to: '13:00', title: 'At Ridge House', place: 'Ridge House', kind: 'whereabouts', shows: 'free', visibility: 'open', by: 'tomas' },
  { day: 1, at: '13:30', to: '18:30', title: 'At Marsh Lab', place: 'Marsh Lab', kind: 'whereabouts', shows: 'free', visibility: 'open', by: 'tomas' },
  { day: 3, at: '12:15', to: '13:00', title: 'Physio, Dr Amsel', place: 'Weir Street 4', kind: 'errand', visibility: 'private' },
  { day: 5, at: '10:00', to: '11:15', title: 'Ridge run', kind: 'errand', shows: 'tentative' },
];

export const INES_WEEKS: readonly Sample[] = [
  { week: 0, day: 0, at: '09:30', to: '11:00', title: 'Field budgets 2027', place: 'Ridge House, south room', with: ['bruno', 'amara'], by: 'tomas', notes: 'Second reading. Bring the peat line down by a tenth or say why not.', answer: 'accepted' },
  { week: 0, day: 0, at: '11:00', to: '12:00', title: 'Salary round, first figures', visibility: 'private', with: ['wren'], place: 'Ridge House, her room' },
  { week: 0, day: 0, at: '13:00', to: '14:00', title: 'Lunch, river board', place: 'Weir Inn', shows: 'tentative', by: 'tomas' },
  { week: 0, day: 0, at: '14:30', to: '16:30', title: 'Catchment model review', place: 'Ridge House', with: ['yusuf', 'hedda', 'jonas'], link: `${ROOM}catchment`, by: 'tomas' },
  { week: 0, day: 0, at: '17:00', to: '18:00', title: 'Call, ministry', by: 'tomas', important: true, briefing: 'They want a date for the weir. Don’t give one before the board.' },
  { week: 0, day: 1, at: '08:30', to: '09:00', title: 'Press line', with: ['ayesha'], place: 'Ridge House', by: 'tomas' },
  { week: 0, day: 1, at: '09:30', to: '11:30', title: 'Board pre-read', place: 'Ridge House', kind: 'focus', by: 'tomas', visibility: 'outline', notes: 'Papers 1 to 7. Number 4 is the land paper.' },
  { week: 0, day: 1, at: '12:00', to: '12:50', title: 'Dentist', place: 'Mill Lane', kind: 'errand' },
  { week: 0, day: 1, at: '14:00', to: '15:30', title: 'Lab walk-through', place: 'Marsh Lab', with: ['amara', 'oona'], by: 'tomas' },
  { week: 0, day: 1, at: '16:00', to: '17:00', title: 'Staff questions', place: 'Marsh Lab, hall', with: ['hedda'], link: `${ROOM}all-sites`, by: 'tomas' },
  { week: 0, day: 2, at: '09:15', to: '10:15', title: 'Seed Store roof', place: 'Ridge House', with: ['greta', 'lars'], by: 'tomas', notes: 'Moved here from Monday; overlaps with Leadership.' },
  { week: 0, day: 2, at: '11:00', to: '12:15', title: 'Heron: terms with the landowners', place: 'Ridge House, north room', visibility: 'outline', with: ['bruno', 'amara'], by: 'tomas', notes: 'Heron is the purchase of the Sallow meadows. Nobody outside says the name of the place.', briefing: 'Offer letter in the blue folder. Don’t settle the water clause today.', important: true },
  { week: 0, day: 2, at: '12:30', to: '14:00', title: 'Sensor trial', place: 'Marsh Lab', with: ['amara', 'jonas'], callers: 'amara', answer: 'tentative', by: 'tomas' },
  { week: 0, day: 2, at: '15:00', to: '16:00', title: 'Auditors, first talk', kind: 'hold', shows: 'tentative', by: 'tomas', notes: 'Hold A 1 of 3, with Quill Audit.' },
  { week: 0, day: 2, at: '16:30', to: '17:30', title: 'School: Marek’s teacher', visibility: 'private', kind: 'errand' },
  { week: 0, day: 3, at: '00:00', to: '00:00', days: 2, title: 'Uplands forum', place: 'Bogotá, by link', shows: 'away', by: 'tomas' },
  { week: 0, day: 3, at: '14:00', to: '17:30', title: 'Uplands forum, session one', place: 'by link', shows: 'away', zone: 'America/Bogota', link: `${ROOM}uplands`, with: ['lucia', 'salome'], by: 'tomas' },
  { week: 0, day: 3, at: '18:00', to: '18:50', title: 'Auditors, first talk', kind: 'hold', shows: 'tentative', by: 'tomas', notes: 'Hold A 2 of 3.' },
  { week: 0, day: 3, at: '19:00', to: '20:00', title: 'Panel: who owns the mist?', shows: 'busy', by: 'tomas', answer: 'needs-action', callers: 'salome' },
  { week: 0, day: 4, at: '10:30', to: '11:30', title: 'Auditors, first talk', kind: 'hold', shows: 'tentative', by: 'tomas', notes: 'Hold A 3 of 3.' },
  { week: 0, day: 4, at: '13:00', to: '15:00', title: 'Reading time', kind: 'focus', shows: 'tentative', notes: 'Free to move.' },
  { week: 0, day: 4, at: '15:30', to: '16:00', title: 'Amsel: results', visibility: 'private', kind: 'errand' },
  { week: 1, day: 0, at: '09:30', to: '10:30', title: 'Water company, quarter talk', place: 'Ridge House, north room', by: 'tomas', notes: 'Two from Fenwater come by train, 9:12.', with: ['bruno', 'mateo'] },
  { week: 1, day: 0, at: '10:15', to: '11:00', title: 'Job talk: peat and soils', place: 'Ridge House', with: ['wren', 'otto'], visibility: 'outline' },
  { week: 1, day: 0, at: '14:00', to: '16:00', title: 'Board papers, last look', kind: 'focus', by: 'tomas' },
  { week: 1, day: 1, at: '08:00', to: '20:00', title: 'Field day, North Hut', place: 'North Hut', shows: 'away', with: ['kofi', 'elin', 'maren'], by: 'tomas', notes: 'No reception after ten. Boots, two layers.' },
  { week: 1, day: 2, at: '10:00', to: '13:00', title: 'Board', place: 'Ridge House, hall', important: true, with: ['bruno', 'felix', 'hedda'], by: 'tomas', briefing: 'Chair wants ten minutes alone before. Paper 4 stays on paper.' },
  { week: 1, day: 2, at: '13:00', to: '14:00', title: 'Board lunch', place: 'Ridge House', by: 'tomas' },
  { week: 1, day: 2, at: '15:00', to: '15:45', title: 'Heron: after the board', visibility: 'outline', with: ['bruno', 'felix'], by: 'tomas', notes: 'Heron decision and who calls whom.' },
  { week: 1, day: 3, at: '09:00', to: '10:00', title: 'Fundraising: winter letter', with: ['tobias', 'ayesha'], place: 'Ridge House', by: 'tomas' },
  { week: 1, day: 3, at: '10:30', to: '11:30', title: 'One to one, Hedda', with: ['hedda'], place: 'walk', visibility: 'outline' },
  { week: 1, day: 3, at: '14:00', to: '15:00', title: 'Bruno: year end', with: ['bruno'], place: 'Ridge House', by: 'tomas' },
  { week: 1, day: 3, at: '16:00', to: '17:00', title: 'Lawyer, family matter', visibility: 'private', kind: 'errand' },
  { week: 1, day: 4, at: '10:00', to: '11:30', title: 'Volunteers’ thanks', place: 'Seed Store', with: ['maren', 'greta'], by: 'tomas' },
  { week: 1, day: 4, at: '12:00', to: '12:30', title: 'Train to Cresswater', kind: 'travel', by: 'tomas' },
  { week: 1, day: 4, at: '13:00', to: '15:00', title: 'Ministry: weir consent', place: 'Cresswater, Hall Lane 2', important: true, by: 'tomas', notes: 'Bring the hydrology annex, printed.' },
  { week: 2, day: 1, at: '10:00', to: '11:00', title: 'Auditors, visit', place: 'Ridge House', with: ['bruno', 'ivo'], by: 'tomas' },
  { week: 2, day: 3, at: '09:00', to: '12:00', title: 'Plan 2027, draft', kind: 'focus' },
  { week: -1, day: 2, at: '14:00', to: '16:00', title: 'Weir design, options', place: 'Marsh Lab', with: ['yusuf'], by: 'tomas' },
  { week: -1, day: 3, at: '10:00', to: '12:30', title: 'Landowners’ evening, prepare', with: ['amara'], visibility: 'outline' },
  { week: -2, day: 1, at: '09:00', to: '13:00', title: 'Quarter close', with: ['bruno'], place: 'Ridge House', by: 'tomas' },
];

export const BRUNO_WEEKLY: readonly Weekly[] = [
  { day: 0, at: '09:00', to: '09:30', title: 'Cash and cover', with: ['ivo', 'sanna'], place: 'Ridge House', by: 'tomas' },
  { day: 2, at: '08:45', to: '09:40', title: 'Leadership', place: 'Ridge House, south room', callers: 'ines', answer: 'accepted', by: 'tomas' },
  { day: 3, at: '16:00', to: '17:00', title: 'Accounts table', with: ['ivo', 'sanna'], place: 'Ridge House' },
  { day: 4, at: '07:30', to: '08:30', title: 'Swim', visibility: 'private', kind: 'errand' },
];
export const BRUNO_WEEKS: readonly Sample[] = [
  { week: 0, day: 0, at: '09:30', to: '11:00', title: 'Field budgets 2027', place: 'Ridge House, south room', callers: 'ines', answer: 'accepted', by: 'tomas' },
  { week: 0, day: 0, at: '14:00', to: '15:30', title: 'Bank: green loan', place: 'Ridge House', important: true, by: 'tomas' },
  { week: 0, day: 1, at: '10:00', to: '12:00', title: 'Forecast, build', kind: 'focus' },
  { week: 0, day: 1, at: '14:00', to: '15:00', title: 'Payroll system, prices', with: ['noor', 'wren'], by: 'tomas' },
  { week: 0, day: 2, at: '11:00', to: '12:15', title: 'Heron: terms with the landowners', place: 'Ridge House, north room', callers: 'ines', answer: 'accepted', visibility: 'outline', by: 'tomas' },
  { week: 0, day: 3, at: '10:00', to: '10:45', title: 'Quarter close, first look', answer: 'needs-action', link: `${ROOM}quill`, by: 'tomas', notes: 'Invitation from Quill Audit.' },
  { week: 0, day: 3, at: '13:00', to: '14:00', title: 'Lunch, trustees’ treasurer', place: 'Weir Inn', shows: 'tentative' },
  { week: 0, day: 4, at: '09:00', to: '12:00', title: 'Forecast, finish', kind: 'focus' },
  { week: 1, day: 0, at: '09:30', to: '10:30', title: 'Water company, quarter talk', callers: 'ines', answer: 'accepted', by: 'tomas' },
  { week: 1, day: 1, at: '00:00', to: '00:00', days: 3, title: 'Away: sister’s wedding', visibility: 'private', shows: 'away' },
  { week: 1, day: 4, at: '10:00', to: '11:00', title: 'Year end, list of doubts', with: ['ivo'], by: 'tomas' },
];

export const TOMAS_WEEKLY: readonly Weekly[] = [
  { day: 0, at: '08:30', to: '09:10', title: 'Week with Inés', callers: 'ines', answer: 'accepted', place: 'Ridge House' },
  { day: 1, at: '13:00', to: '13:45', title: 'Lunch outside', kind: 'errand' },
  { day: 3, at: '09:00', to: '09:45', title: 'Assistants’ round', with: ['oona', 'pim'], place: 'Ridge House, kitchen' },
];
export const TOMAS_WEEKS: readonly Sample[] = [
  { week: 0, day: 1, at: '15:00', to: '16:00', title: 'Train Pim: holds', with: ['pim'] },
  { week: 0, day: 2, at: '18:00', to: '19:30', title: 'Choir', visibility: 'private' },
  { week: 0, day: 4, at: '14:00', to: '15:00', title: 'Room plan for the board', with: ['brigid'] },
  { week: 1, day: 0, at: '11:00', to: '12:00', title: 'Travel desk', kind: 'focus' },
  { week: 1, day: 3, at: '00:00', to: '00:00', days: 1, title: 'Day off', shows: 'away' },
];
export const AMARA_WEEKLY: readonly Weekly[] = [
  { day: 0, at: '07:30', to: '08:15', title: 'Field brief', place: 'Marsh Lab', with: ['kofi', 'elin', 'jonas'] },
  { day: 2, at: '12:30', to: '14:00', title: 'Sensor trial', place: 'Marsh Lab', with: ['jonas', 'ines'] },
  { day: 4, at: '15:00', to: '16:00', title: 'Samples to chemistry', place: 'Marsh Lab', with: ['priya'] },
];
export const AMARA_WEEKS: readonly Sample[] = [
  { week: 0, day: 0, at: '09:30', to: '11:00', title: 'Field budgets 2027', callers: 'ines', answer: 'accepted', place: 'Ridge House, south room' },
  { week: 0, day: 1, at: '08:00', to: '13:00', title: 'Transect 4', place: 'North Hut', shows: 'away', with: ['rafael'] },
  { week: 0, day: 2, at: '11:00', to: '12:15', title: 'Heron: terms with the landowners', callers: 'ines', answer: 'needs-action', place: 'Ridge House, north room' },
  { week: 0, day: 3, at: '09:00', to: '16:00', title: 'Peat cores', place: 'North Hut', shows: 'away', with: ['otto'] },
  { week: 1, day: 1, at: '08:00', to: '18:00', title: 'Field day, North Hut', place: 'North Hut', shows: 'away' },
  { week: 1, day: 3, at: '13:00', to: '14:30', title: 'Trial write-up', kind: 'focus' },
];

/** What the weeks of everybody else are made of. */
export const FILLERS: readonly (readonly [title: string, minutes: number, place: string | null])[] = [
  ['Stand-up', 15, null],
  ['Site round', 60, 'on site'],
  ['Letters', 45, null],
  ['Supplier call', 30, null],
  ['Data check', 90, null],
  ['Planning table', 60, 'Ridge House'],
  ['Training', 120, 'Marsh Lab, hall'],
  ['Visit, school group', 90, 'Seed Store'],
  ['Maintenance', 120, 'Seed Store'],
  ['One to one', 30, null],
  ['Report, write', 120, null],
  ['Safety walk', 45, 'North Hut'],
];
