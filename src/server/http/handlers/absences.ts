import type { RouteName } from '@/contract/routes.ts';
import { addAbsence, changeAbsence, giveCover, listAbsences, removeAbsence } from '../../operations/absences/index.ts';
import type { HandlersOf } from '../handler.ts';

export const absencesHandlers = {
  listAbsences: ({ ctx, params }) => listAbsences(ctx, params.person),
  addAbsence: ({ ctx, params, body }) => addAbsence(ctx, params.person, body),
  changeAbsence: ({ ctx, params, body }) => changeAbsence(ctx, params.absence, body),
  removeAbsence: ({ ctx, params }) => removeAbsence(ctx, params.absence),
  giveCover: ({ ctx, params, body }) => giveCover(ctx, params.absence, body),
} satisfies Partial<HandlersOf<RouteName>>;
