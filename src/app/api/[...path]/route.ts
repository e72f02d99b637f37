import { answerApi } from '@/server/http/handlers.ts';

export const dynamic = 'force-dynamic';

/** Every route of the API is answered by the table of handlers. */
const answer = async (request: Request, { params }: { params: Promise<{ path: string[] }> }): Promise<Response> =>
  answerApi(request, (await params).path);

export const GET = answer;
export const POST = answer;
export const PUT = answer;
export const PATCH = answer;
export const DELETE = answer;
