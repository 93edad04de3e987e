import { api, take } from "../api/client";
import { useChange } from "../queries/queries";
import { useSay } from "./notices";

/** Says of jars that their acid is not in them, with a touch to take that back. */
export function useUndosed(then?: () => void) {
  const say = useSay();
  return useChange(
    (body: { jars: number[]; undosed: boolean }) => take(api.PUT("/api/undosed", { body })),
    (_, { jars, undosed }, again) => {
      if (undosed) say("Without its acid", () => again({ jars, undosed: false }));
      then?.();
    },
  );
}
