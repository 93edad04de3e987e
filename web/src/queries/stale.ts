import type { QueryClient, QueryFilters } from "@tanstack/react-query";

/**
 * Asks again what may be different now: the addresses under these first words, or all; what is not shown is asked when
 * it is. An answer on its way may be older than the change, and is not waited for: the library by itself would take the
 * first answer to a question for a new one, however late it comes.
 */
export async function askAgain(client: QueryClient, stale: readonly string[] | null) {
  const which: QueryFilters =
    stale === null ? {} : { predicate: ({ queryKey: [first] }) => stale.includes(String(first)) };
  await client.cancelQueries(which);
  await client.invalidateQueries(which);
}
