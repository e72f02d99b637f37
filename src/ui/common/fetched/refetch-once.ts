import type { InvalidateOptions, InvalidateQueryFilters, Query, QueryClient } from '@tanstack/react-query';

const waiting = new WeakSet<Query>();

/**
 * Refetches what was reported as changed. A fetch already under way is joined, and repeated once it has ended, since it may have been
 * answered before the change. So there is at most one fetch running and one waiting.
 */
export async function refetchOnce(
  client: QueryClient,
  filters: InvalidateQueryFilters = {},
  options: InvalidateOptions = {},
): Promise<void> {
  const joined = { cancelRefetch: false, ...options };
  const underWay = client
    .getQueryCache()
    .findAll({ ...filters, fetchStatus: 'fetching' })
    .filter((query) => !waiting.has(query));
  for (const query of underWay) waiting.add(query);
  try {
    await client.invalidateQueries(filters, joined);
  } finally {
    for (const query of underWay) waiting.delete(query);
  }
  for (const { queryKey } of underWay) await client.invalidateQueries({ queryKey, exact: true }, joined);
}
