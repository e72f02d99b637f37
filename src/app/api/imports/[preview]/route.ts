import { route, slowRoute } from '@/server/http/route.ts';
import { bringIn, readImport, stopImport } from '@/server/operations/beside/imports.ts';

export const GET = route('readImport', ({ ctx, params }) => readImport(ctx, params.preview ?? ''));
export const POST = slowRoute('bringIn', ({ ctx, params }) => bringIn(ctx, params.preview ?? ''));
export const DELETE = route('stopImport', ({ ctx, params }) => stopImport(ctx, params.preview ?? ''));
