import { z } from 'zod';
import { ADDRESSES, type RouteName } from './addresses.ts';

/** One route of the API: where it is, what it takes and what it answers. */
export interface Route {
  readonly method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  readonly path: `/api/${string}`;
  readonly summary: string;
  /** `person` needs a session; `open` doesn't. */
  readonly who: 'person' | 'open';
  /** Only a window may do this, never a token: it opens or closes ways in. */
  readonly by?: 'session';
  readonly query?: z.ZodType;
  readonly body?: z.ZodType;
  /** The most its body may have, in bytes, where that is more than bodies have. */
  readonly mostBytes?: number;
  /** It has a body, but only reads. */
  readonly reads?: true;
  /** A body that is no JSON, by its media type; read by the operation itself. */
  readonly rawBody?: string;
  /** Its raw body is taken as it comes, by the operation, and not held in memory. */
  readonly streams?: true;
  readonly answer?: z.ZodType;
  /** The media type of an answer that is no JSON. */
  readonly rawAnswer?: string;
}

/** The routes of an area, by name. */
export type Routes = Record<string, Route>;

/** Where a route is, by its name. */
export const at = (name: RouteName): Pick<Route, 'method' | 'path'> => {
  const [method, path] = ADDRESSES[name];
  return { method, path };
};

/** The answer of an act that has nothing more to say. */
export const done = z.strictObject({ done: z.literal(true) });
