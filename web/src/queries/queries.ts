import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import {
  api,
  take,
  type AcidRequest,
  type FirstRequest,
  type PlanRequest,
  type Product,
  type RecipePlanRequest,
  type ScaleRequest,
  type SplitRequest,
  type Thickness,
} from "../api/client";
import type { paths } from "../api/schema";
import { heard, silent } from "../connection";
import { tellTime } from "../base/clock";
import { showZone } from "../writing/format";
import { showWays } from "../writing/ways";
import { askAgain } from "./stale";

export type LabelQuery = paths["/api/labels"]["get"]["parameters"]["query"];

/**
 * Every question the screens ask, key and fetcher in one place. A key begins with the first word of its address: the server
 * says by it what is to be asked again.
 */
export const ask = {
  counter: () =>
    queryOptions({
      queryKey: ["counter"],
      queryFn: async () => {
        const counter = await take(api.GET("/api/counter"));
        tellTime(counter.now, counter.pace);
        showZone(counter.zone);
        showWays(counter.kitchen.ways);
        return counter;
      },
    }),
  lots: () => queryOptions({ queryKey: ["lots"], queryFn: () => take(api.GET("/api/lots")) }),
  containers: () =>
    queryOptions({ queryKey: ["containers"], queryFn: () => take(api.GET("/api/containers")) }),
  batches: () => queryOptions({ queryKey: ["batches"], queryFn: () => take(api.GET("/api/batches")) }),
  loads: () => queryOptions({ queryKey: ["loads"], queryFn: () => take(api.GET("/api/loads")) }),
  lifted: () => queryOptions({ queryKey: ["wash_up"], queryFn: () => take(api.GET("/api/wash_up")) }),
  grouping: () =>
    queryOptions({
      queryKey: ["loads", "grouping"],
      queryFn: () => take(api.GET("/api/loads/grouping")),
      retry: false,
    }),
  towel: () => queryOptions({ queryKey: ["towel"], queryFn: () => take(api.GET("/api/towel")) }),
  shelf: (query: { code?: string; product?: Product; year?: number } = {}) =>
    queryOptions({
      queryKey: ["shelf", query],
      queryFn: () => take(api.GET("/api/shelf", { params: { query } })),
      placeholderData: (previous) => previous,
      retry: false,
    }),
  cold: () => queryOptions({ queryKey: ["cold"], queryFn: () => take(api.GET("/api/cold")) }),
  coldFood: () => queryOptions({ queryKey: ["cold_food"], queryFn: () => take(api.GET("/api/cold_food")) }),
  books: (day: string) =>
    queryOptions({
      queryKey: ["books", day],
      queryFn: () => take(api.GET("/api/books/{day}", { params: { path: { day } } })),
      retry: false,
    }),
  pantry: () => queryOptions({ queryKey: ["pantry"], queryFn: () => take(api.GET("/api/pantry")) }),
  jar: (id: number) =>
    queryOptions({
      queryKey: ["jars", id],
      queryFn: () => take(api.GET("/api/jars/{id}", { params: { path: { id } } })),
      retry: false,
    }),
  record: (id: number) =>
    queryOptions({
      queryKey: ["batches", id, "record"],
      queryFn: () => take(api.GET("/api/batches/{id}/record", { params: { path: { id } } })),
      retry: false,
    }),
  labels: (query: LabelQuery) =>
    queryOptions({
      queryKey: ["labels", query],
      queryFn: () => take(api.GET("/api/labels", { params: { query } })),
      enabled: query.jars !== "",
      placeholderData: (previous) => previous,
      retry: false,
    }),
  day: () => queryOptions({ queryKey: ["day"], queryFn: () => take(api.GET("/api/day")), staleTime: 20_000 }),
  broken: () => queryOptions({ queryKey: ["broken"], queryFn: () => take(api.GET("/api/broken")) }),
  network: () => queryOptions({ queryKey: ["network"], queryFn: () => take(api.GET("/api/network")) }),
  backups: () => queryOptions({ queryKey: ["backups"], queryFn: () => take(api.GET("/api/backups")) }),
  plan: (request: PlanRequest) =>
    queryOptions({
      queryKey: ["plan", request],
      queryFn: () => take(api.POST("/api/plan", { body: request })),
      enabled: request.lots.length > 0,
      placeholderData: (previous) => previous,
      retry: false,
    }),
  first: (request: FirstRequest | null) =>
    queryOptions({
      queryKey: ["plan", "first", request],
      queryFn: () =>
        request === null
          ? Promise.reject(new Error("Nothing is asked"))
          : take(api.POST("/api/plan/first", { body: request })),
      enabled: request !== null,
      placeholderData: (previous) => previous,
      retry: false,
    }),
  kettles: () => queryOptions({ queryKey: ["kettles"], queryFn: () => take(api.GET("/api/kettles")) }),
  cooks: () => queryOptions({ queryKey: ["cooks"], queryFn: () => take(api.GET("/api/cooks")) }),
  stock: () => queryOptions({ queryKey: ["stock"], queryFn: () => take(api.GET("/api/stock")) }),
  goals: () => queryOptions({ queryKey: ["goals"], queryFn: () => take(api.GET("/api/goals")) }),
  recipes: () => queryOptions({ queryKey: ["recipes"], queryFn: () => take(api.GET("/api/recipes")) }),
  recipe: (id: number) =>
    queryOptions({
      queryKey: ["recipes", id],
      queryFn: () => take(api.GET("/api/recipes/{id}", { params: { path: { id } } })),
    }),
  recipeHistory: (id: number) =>
    queryOptions({
      queryKey: ["recipes", id, "history"],
      queryFn: () => take(api.GET("/api/recipes/{id}/history", { params: { path: { id } } })),
    }),
  recipeScale: (id: number, body: ScaleRequest) =>
    queryOptions({
      queryKey: ["recipes", id, "scale", body],
      queryFn: () => take(api.POST("/api/recipes/{id}/scale", { params: { path: { id } }, body })),
      placeholderData: (previous) => previous,
      retry: false,
    }),
  phBench: (bowls: number | null) =>
    queryOptions({
      queryKey: ["ph_bench", bowls],
      queryFn: () => take(api.GET("/api/ph_bench", { params: { query: bowls === null ? {} : { bowls } } })),
    }),
  recipePlan: (id: number, body: RecipePlanRequest) =>
    queryOptions({
      queryKey: ["recipes", id, "plan", body],
      queryFn: () => take(api.POST("/api/recipes/{id}/plan", { params: { path: { id } }, body })),
      placeholderData: (previous) => previous,
      retry: false,
    }),
  bowls: (recipe: number) =>
    queryOptions({
      queryKey: ["recipes", recipe, "bowls"],
      queryFn: () => take(api.GET("/api/recipes/{id}/bowls", { params: { path: { id: recipe } } })),
    }),
  checklist: (id: number) =>
    queryOptions({
      queryKey: ["batches", id, "checklist"],
      queryFn: () => take(api.GET("/api/batches/{id}/checklist", { params: { path: { id } } })),
    }),
  compare: (lots: number[]) =>
    queryOptions({
      queryKey: ["plan", "compare", lots],
      queryFn: () => take(api.POST("/api/plan/compare", { body: { lots, agent: "bottled_lemon_juice" } })),
      enabled: lots.length > 0,
      placeholderData: (previous) => previous,
      retry: false,
    }),
  split: (body: SplitRequest) =>
    queryOptions({
      queryKey: ["plan", "split", body],
      queryFn: () => take(api.POST("/api/plan/split", { body })),
      enabled: body.lots.length > 0,
      placeholderData: (previous) => previous,
      retry: false,
    }),
  figures: () =>
    queryOptions({
      queryKey: ["figures"],
      queryFn: () => take(api.GET("/api/figures")),
      staleTime: Infinity,
      refetchInterval: false,
    }),
  almanac: () => queryOptions({ queryKey: ["almanac"], queryFn: () => take(api.GET("/api/almanac")) }),
  towns: (name: string) =>
    queryOptions({
      queryKey: ["places", name],
      queryFn: () => take(api.GET("/api/places", { params: { query: { name } } })),
      enabled: name.length >= 2,
      staleTime: Infinity,
      placeholderData: (previous) => previous,
    }),
  near: (at: { lat: number; lon: number } | null) =>
    queryOptions({
      queryKey: ["places", "near", at],
      queryFn: () => take(api.GET("/api/places/near", { params: { query: at ?? { lat: 0, lon: 0 } } })),
      enabled: at !== null,
      staleTime: Infinity,
    }),
  boilTest: (boilsAtC: number | null) =>
    queryOptions({
      queryKey: ["compute", "altitude", boilsAtC],
      queryFn: () => take(api.POST("/api/compute/altitude", { body: { boils_at_c: boilsAtC ?? 100 } })),
      enabled: boilsAtC !== null,
      retry: false,
      staleTime: Infinity,
    }),
  acid: (body: AcidRequest) =>
    queryOptions({
      queryKey: ["compute", "acid", body],
      queryFn: () => take(api.POST("/api/compute/acid", { body })),
      enabled: body.jars.length > 0,
      staleTime: Infinity,
    }),
  jarByWater: (waterKg: number | null) =>
    queryOptions({
      queryKey: ["compute", "jar", waterKg],
      queryFn: () => take(api.POST("/api/compute/jar", { body: { water_kg: waterKg ?? 1 } })),
      enabled: waterKg !== null,
      staleTime: Infinity,
    }),
  yield: (product: Product, thickness: Thickness | null, weightG: number) =>
    queryOptions({
      queryKey: ["compute", "yield", product, thickness, weightG],
      queryFn: () =>
        take(
          api.POST("/api/compute/yield", {
            body: { product, thickness, kind: "mixed", weight_kg: weightG / 1000 },
          }),
        ),
      enabled: weightG > 0,
      staleTime: Infinity,
    }),
};

/** Words of addresses whose answers may be different now; none for all of them. */
function staleOf(event: MessageEvent<string>): readonly string[] | null {
  const { stale } = JSON.parse(event.data) as { stale: string[] | null };
  return stale;
}

/** Whether the server tells this page of every change; then nothing is asked again on a guess. */
let hears = false;

/**
 * Asks again what the server says is different, whether it was changed on this screen or another. A browser allows six
 * connections to one address, so a page that nobody sees gives its own back and asks every half minute instead.
 */
export function useLiveAnswers() {
  const client = useQueryClient();
  useEffect(() => {
    let events: EventSource | undefined;
    // What was asked while the first connection was made is as new as the connection; a page that nobody saw then is not.
    let isFirst = document.visibilityState === "visible";
    const opened = () => {
      hears = true;
      heard();
      if (!isFirst) void askAgain(client, null);
      isFirst = false;
    };
    const leave = () => {
      hears = false;
      events?.close();
      events = undefined;
    };
    const listen = () => {
      leave();
      if (document.visibilityState !== "visible") return;
      events = new EventSource("/api/live");
      events.addEventListener("changed", (event: MessageEvent<string>) => {
        heard();
        void askAgain(client, staleOf(event));
      });
      events.addEventListener("here", heard);
      events.addEventListener("open", opened);
      events.addEventListener("error", () => {
        hears = false;
        silent();
      });
    };
    listen();
    document.addEventListener("visibilitychange", listen);
    window.addEventListener("pageshow", listen);
    window.addEventListener("pagehide", leave);
    return () => {
      leave();
      document.removeEventListener("visibilitychange", listen);
      window.removeEventListener("pageshow", listen);
      window.removeEventListener("pagehide", leave);
    };
  }, [client]);
}

/**
 * A change to the records; the screens ask again when it is done. `then` may make the change once more with other input,
 * as an undo does.
 */
export function useChange<In, Out>(
  change: (input: In) => Promise<Out>,
  then?: (out: Out, input: In, again: (input: In) => void) => void,
) {
  const client = useQueryClient();
  const latest = useRef<((input: In) => void) | null>(null);
  const mutation = useMutation({
    mutationFn: change,
    onSuccess: (out, input) => {
      if (!hears) void askAgain(client, null);
      then?.(out, input, (next) => latest.current?.(next));
    },
  });
  useEffect(() => {
    latest.current = mutation.mutate;
  });
  return mutation;
}

/** Takes the line of a moment out of a kettle's log. */
export function useUndoLine(cook: number) {
  return useChange((at: number) =>
    take(api.DELETE("/api/cooks/{id}/events/{at}", { params: { path: { id: cook, at } } })),
  );
}

/** Takes back a move of food that was just told. */
export function useUndoMove() {
  return useChange((id: number) => take(api.DELETE("/api/moves/{id}", { params: { path: { id } } })));
}
