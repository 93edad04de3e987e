import { api, take, type KitchenChange } from "../api/client";
import { useChange } from "../queries/queries";

/** A change to the household's own settings; what is left out stays. */
export function useKitchenChange() {
  return useChange((body: KitchenChange) => take(api.PATCH("/api/kitchen", { body })));
}
