export { addAbsence, changeAbsence, giveCover, isCovered, listAbsences, removeAbsence } from './absences.ts';
