/** Name of the cache that holds the last known state. */
export const KEPT_CACHE = "bodega-kept";
/** Header of an answer that is not the kitchen's own now: when it was given, by this device's clock. */
export const KEPT_AT = "bodega-kept-at";

/** Addresses whose answers are no state of a station: signs of life, streams, files. */
const NOT_KEPT = [/^\/api\/(health|live|network|openapi\.json|export\.json)/u, /\.(csv|ics|pdf|jsonld)$/u];

/** Whether the last answer of an address is kept for when the kitchen is away. */
export function isKept(path: string): boolean {
  return path.startsWith("/api/") && !NOT_KEPT.some((pattern) => pattern.test(path));
}

/** The answer with the time that it was given. */
export async function stamp(response: Response, now: number): Promise<Response> {
  const headers = new Headers(response.headers);
  headers.set(KEPT_AT, String(now));
  return new Response(await response.arrayBuffer(), { status: response.status, headers });
}

/**
 * A kept answer as it is shown now: the kitchen's clock in it has run on by this device's, at its own pace, so that what
 * boils boils on.
 */
export async function asKept(response: Response, now: number): Promise<Response> {
  const at = Number(response.headers.get(KEPT_AT));
  const text = await response.text();
  const answer = JSON.parse(text) as { now?: unknown; pace?: unknown };
  const body =
    typeof answer.now === "number" && typeof answer.pace === "number"
      ? JSON.stringify({ ...answer, now: answer.now + Math.max(0, now - at) * answer.pace })
      : text;
  return new Response(body, { status: response.status, headers: response.headers });
}
