import { davAnswer } from './dav/dav.ts';
import { answerApi } from './handlers.ts';
import { inbound } from './inbound.ts';

export { startJobs } from '../jobs/start.ts';
export { openWhileWorking } from './while-working.ts';

/*
 * What the web server answers by itself: everything below /api, without Next in between, which takes longer for a request than most answers
 * do. The same modules run the work on worker threads, so that both share what the process keeps.
 */

/** A path of plain parts. Any other (empty or dotted parts, a slash at the end) is left to Next, which redirects or refuses it. */
const PLAIN = /^\/api(?:\/(?!(?:\.|%2[Ee]){1,2}(?:\/|$))[A-Za-z0-9._~%!$&'()*+,;=:@-]+)+$/;
const METHODS = ['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE'];

/** Whether a request is answered here. */
export const answersTo = (method: string, url: string): boolean =>
  METHODS.includes(method) && PLAIN.test(url.split('?')[0] ?? '');

/** Answers a request to a path of the API, of the calendar protocol (as the web server hands it on), or for mail that comes in. */
export async function answer(request: Request): Promise<Response> {
  const path = new URL(request.url).pathname;
  if (request.method === 'POST' && path === '/api/dav') return davAnswer(request);
  if (request.method === 'POST' && path === '/api/inbound') return inbound(request);
  return answerApi(request, path.split('/').slice(2).map(decodeURIComponent));
}
