import { nothingThere } from '@/server/http/inbound.ts';

export const dynamic = 'force-dynamic';
export const GET = () => nothingThere();
export const POST = GET;
export const PUT = GET;
export const PATCH = GET;
export const DELETE = GET;
