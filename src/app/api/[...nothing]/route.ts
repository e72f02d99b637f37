import { nothingThere } from '@/server/http/inbound.ts';

export const dynamic = 'force-dynamic';
export const GET = () => nothingThere();
export const POST = () => nothingThere();
export const PUT = () => nothingThere();
export const PATCH = () => nothingThere();
export const DELETE = () => nothingThere();
