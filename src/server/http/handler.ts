import type { z } from 'zod';
import type { ParamOf } from '@/contract/addresses.ts';
import type { ROUTES, RouteName } from '@/contract/routes.ts';
import type { Context } from '../operations/deciding/context/context.ts';
import type { Refusal } from '../result.ts';

type R<N extends RouteName> = (typeof ROUTES)[N];
type Out<N extends RouteName, K extends 'body' | 'query'> =
  R<N> extends Record<K, infer S> ? (S extends z.ZodType ? z.output<S> : undefined) : undefined;

/** What a route's handler gets: the context of whoever is signed in, and everything the contract has already read. */
export interface Call<N extends RouteName> {
  readonly ctx: R<N>['who'] extends 'person' ? Context : null;
  readonly params: Readonly<Record<ParamOf<N>, string>>;
  readonly query: Out<N, 'query'>;
  readonly body: Out<N, 'body'>;
  /** A body that is no JSON, as it came. */
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly request: Request;
}
export type Handled = Response | Refusal | { readonly ok: true; readonly value: unknown };

/**
 * What answers a route. A function does all of its work at once: where it writes, in one transaction, in which the viewer is read once
 * more. `slow` waits for something in between (a password's digest, a file), and its operation reads rights where it writes. `beside` does
 * what would take long on another thread, in a transaction there; it answers `null` for what doesn't.
 */
export type Handler<N extends RouteName> =
  | ((call: Call<N>) => Handled | Promise<Handled>)
  | { readonly slow: (call: Call<N>) => Promise<Handled> }
  | {
      readonly handle: (call: Call<N>) => Handled | Promise<Handled>;
      readonly inWorker: (call: Call<N>) => Promise<Handled> | null;
    };
export type HandlersOf<N extends RouteName> = { readonly [K in N]: Handler<K> };
