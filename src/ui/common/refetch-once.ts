import type { InvalidateOptions, InvalidateQueryFilters, Query, QueryClient } from '@tanstack/react-query';

const waiting = new WeakSet<Query>();

/**
 * Asks again for what was told to have changed. What is under way already is joined, and asked for once more when it is there, since it
 * may have been answered before the change: of each there is at most one asking under way and one waiting.
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
