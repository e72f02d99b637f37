import { route } from '@/server/http/route.ts';
import { takeOutJourneys } from '@/server/operations/openings/index.ts';

export const GET = route('takeOutJourneys', ({ ctx }) => {
  const result = takeOutJourneys(ctx);
  if (!result.ok) return result;
  return new Response(result.value, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="journeys.csv"',
      'cache-control': 'no-store',
    },
  });
});
