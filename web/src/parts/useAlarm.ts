import { useEffect } from "react";
import { deviceNow } from "../device/device";
import { sayAloud } from "../device/voice";
import { quietly } from "../base/quietly";
import { ring, soundState } from "./sound";

const EVERY_MS = 15_000;

let last: Promise<unknown> = Promise.resolve();

/** Notices are put up and taken back one after the other: one that is put up anew is not taken back with the old one. */
function inTurn(work: () => Promise<void>) {
  last = last.then(work, work);
  return last;
}

/** Shows a notice outside the page: through the service worker, which many phones ask for, else by itself. */
async function notify(text: string) {
  if (Notification.permission !== "granted") return;
  const worker = await navigator.serviceWorker.getRegistration();
  const notice = {
    body: text,
    tag: text,
    renotify: true,
    requireInteraction: true,
    icon: "/icons/bodega-192.png",
  };
  if (worker === undefined) new Notification("Bodega", { body: text });
  else await worker.showNotification("Bodega", notice);
}

/** Takes the notice of something back that was dealt with. */
async function unnotify(text: string) {
  const worker = await navigator.serviceWorker.getRegistration();
  for (const notice of (await worker?.getNotifications({ tag: text })) ?? []) notice.close();
}

/**
 * Calls somebody back to the stove while `text` is there: sound, vibration, and a notification where it was allowed. Again every quarter of a minute until it is dealt with, unless once is enough.
 */
export function useAlarm(text: string | null, once = false) {
  useEffect(() => {
    if (text === null) return;
    const call = () => {
      // A tone that nobody hears would ring all at once when the sound is switched on.
      if (soundState.isOn()) quietly(ring);
      quietly(() => navigator.vibrate([300, 150, 300]));
    };
    call();
    if (deviceNow().voice) sayAloud(text);
    quietly(() => inTurn(() => notify(text)));
    const again = once ? undefined : setInterval(call, EVERY_MS);
    return () => {
      clearInterval(again);
      if (!once) quietly(() => inTurn(() => unnotify(text)));
    };
  }, [text, once]);
}

/** Asks once whether notifications may be shown; call it from a touch. */
export function allowNotifications() {
  quietly(() => (Notification.permission === "default" ? Notification.requestPermission() : undefined));
}
