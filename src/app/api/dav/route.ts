import { davAnswer } from '@/server/http/dav/dav.ts';
import { nothingThere } from '@/server/http/inbound.ts';

export const dynamic = 'force-dynamic';
/** Every request of the calendar protocol, as the web server hands it on. */
export const POST = (request: Request) => davAnswer(request);
// Without the web server there is nothing here.
export const GET = () => nothingThere();
export const PUT = () => nothingThere();
export const PATCH = () => nothingThere();
export const DELETE = () => nothingThere();
