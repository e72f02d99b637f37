import { inbound, nothingThere } from '@/server/http/inbound.ts';

export const dynamic = 'force-dynamic';
export const POST = (request: Request) => inbound(request);
// To every other method there is nothing here.
export const GET = () => nothingThere();
export const PUT = () => nothingThere();
export const PATCH = () => nothingThere();
export const DELETE = () => nothingThere();
