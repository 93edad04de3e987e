import { api, take, type Claims } from "../api/client";
import { useChange } from "../queries/queries";

/** Says what was seen of a load's jars. */
export const useClaims = (load: number) =>
  useChange((body: Claims) =>
    take(api.PUT("/api/loads/{id}/claims", { params: { path: { id: load } }, body })),
  );
