import { KEPT_AT } from "../offline/kept";
import { door } from "./door";
import { Keep, type Sent, type Touched } from "./keep";

/** How often a page looks whether it still hears of Bodega. */
const EVERY_MS = 1_000;
/** Silence after which it asks; Bodega says something every second and a half. */
const SILENCE_MS = 2_000;
/** How long it waits for that answer. Together less than the five seconds after which every page says so. */
const PATIENCE_MS = 1_900;
/** Header with the age of a touch that was kept. */
const AGE = "bodega-age-ms";

/** Where a device asks to be let in. */
const ENTRY = "/api/devices";
/** What the kitchen says to one that is not. */
const NOT_LET_IN = 401;

/** Questions that are asked with a body; nothing is changed by them, so they are asked again and not kept. */
const QUESTIONS = ["/api/compute/", "/api/plan"];

export const keep = new Keep(() => performance.now());

/** Says that a touch is kept for later, where an answer was expected. */
export class Kept extends Error {
  constructor() {
    super("Bodega does not answer. This is kept, and sent with its time when it does");
  }
}

/** Sends a request; a change that finds nobody is kept for later. */
export async function reach(request: Request): Promise<Response> {
  const path = new URL(request.url).pathname;
  const isChange = request.method !== "GET" && !QUESTIONS.some((question) => path.startsWith(question));
  const again = isChange ? request.clone() : null;
  try {
    // A change goes out in the same breath as the touch, and arrives though the page is left right after it.
    const response = await fetch(request, { keepalive: isChange });
    // The last known state is no answer of the kitchen's.
    const isKept = response.headers.has(KEPT_AT);
    keep.heard(!isKept);
    if (!isKept && path !== ENTRY) door.heard(response.status);
    return response;
  } catch (error) {
    if (request.signal.aborted) throw error;
    keep.heard(false);
    if (again === null) throw error;
    keep.add({ method: request.method, path, body: again.body === null ? null : await again.text() });
    throw new Kept();
  }
}

/** Sends a kept touch with its age. */
async function sendKept(touched: Touched, ageMs: number): Promise<Sent> {
  try {
    const response = await fetch(touched.path, {
      method: touched.method,
      body: touched.body,
      headers: {
        [AGE]: String(ageMs),
        ...(touched.body === null ? {} : { "content-type": "application/json" }),
      },
    });
    if (response.ok) return { is: "arrived" };
    const problem = (await response.json()) as { detail?: string };
    return { is: "refused", words: problem.detail ?? `Bodega answered ${response.status}` };
  } catch {
    return { is: "lost" };
  }
}

/** When Bodega was last heard of, on this page's steady clock. */
let heardAt = -SILENCE_MS;

/** Something came from Bodega by itself. */
export function heard() {
  heardAt = performance.now();
  keep.heard(true);
}

/** What came from Bodega by itself has ended. */
export function silent() {
  heardAt = -SILENCE_MS;
}

/** Asks whether Bodega is there, and sends what waits when it is. `then` is told when something arrived. */
export async function ask(then: () => void): Promise<void> {
  try {
    const answer = await fetch("/api/health", {
      signal: AbortSignal.timeout(PATIENCE_MS),
      cache: "no-store",
    });
    if (answer.ok || answer.status === NOT_LET_IN) heard();
    else keep.heard(false);
    door.heard(answer.status);
  } catch {
    keep.heard(false);
  }
  // What waits is kept until this device is let in.
  if (door.isShut()) return;
  if (keep.now().connected && (await keep.send(sendKept)) > 0) then();
}

/** Asks whenever nothing was heard for a while, or something waits to be sent; returns how to stop. */
export function watch(then: () => void): () => void {
  let asking = false;
  const look = () => {
    const { connected, waiting } = keep.now();
    const isQuiet = performance.now() - heardAt > SILENCE_MS;
    if (asking || (connected && waiting.length === 0 && !isQuiet)) return;
    asking = true;
    void ask(then).finally(() => {
      asking = false;
    });
  };
  const timer = setInterval(look, EVERY_MS);
  return () => clearInterval(timer);
}
