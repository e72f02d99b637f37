import type { InvalidateOptions, InvalidateQueryFilters, QueryClient } from '@tanstack/react-query';

/**
 * Asks again for what was told to have changed. A first asking that is under way is joined by the library rather than begun anew; it
 * may have been answered before the change, so it is asked once more when it is there.
 */
export async function askAgain(
  client: QueryClient,
  filters: InvalidateQueryFilters = {},
  options: InvalidateOptions = {},
): Promise<void> {
  const first = client
    .getQueryCache()
    .findAll({ ...filters, fetchStatus: 'fetching' })
    .filter((query) => query.state.data === undefined);
  await client.invalidateQueries(filters, options);
  for (const { queryKey } of first) await client.invalidateQueries({ queryKey, exact: true }, options);
}
