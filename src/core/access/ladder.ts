import type { Scope, Sight } from '../calendar/index.ts';

export const SIGHT_RANK: Record<Sight, number> = { nothing: 0, busy: 1, title: 2, outline: 3, full: 4 };
const SCOPE_RANK: Record<Scope, number> = { none: 0, own: 1, all: 2 };

export const lowerSight = (a: Sight, b: Sight): Sight => (SIGHT_RANK[a] <= SIGHT_RANK[b] ? a : b);
export const higherSight = (a: Sight, b: Sight): Sight => (SIGHT_RANK[a] >= SIGHT_RANK[b] ? a : b);
export const lowerScope = (a: Scope, b: Scope): Scope => (SCOPE_RANK[a] <= SCOPE_RANK[b] ? a : b);
export const higherScope = (a: Scope, b: Scope): Scope => (SCOPE_RANK[a] >= SCOPE_RANK[b] ? a : b);
