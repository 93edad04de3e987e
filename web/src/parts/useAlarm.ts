import { useEffect } from "react";
import { quietly } from "./quietly";

const BEEPS = 3;
const BEEP_S = 0.35;
const EVERY_MS = 15_000;

/** Three short tones, loud enough for a kitchen; browsers that were never touched stay silent. */
function ring() {
  const sound = new AudioContext();
  for (let i = 0; i < BEEPS; i++) {
    const tone = sound.createOscillator();
    const loud = sound.createGain();
    const at = sound.currentTime + i * BEEP_S * 1.6;
    tone.frequency.value = 880;
    loud.gain.setValueAtTime(0.4, at);
    loud.gain.exponentialRampToValueAtTime(0.001, at + BEEP_S);
    tone.connect(loud).connect(sound.destination);
    tone.start(at);
    tone.stop(at + BEEP_S);
  }
  setTimeout(() => quietly(() => sound.close()), 3000);
}

/**
 * Calls somebody back to the stove while `text` is there: sound, vibration, the page's title, and a notification where
 * it was allowed. Again every quarter of a minute until it is dealt with, unless once is enough.
 */
export function useAlarm(text: string | null, once = false) {
  useEffect(() => {
    if (text === null) return;
    const before = document.title;
    document.title = `● ${text}`;
    const call = () => {
      quietly(ring);
      quietly(() => navigator.vibrate([300, 150, 300]));
    };
    call();
    // On many phones the constructor is there and throws.
    quietly(() => Notification.permission === "granted" && new Notification("Bodega", { body: text }));
    const again = once ? undefined : setInterval(call, EVERY_MS);
    return () => {
      clearInterval(again);
      document.title = before;
    };
  }, [text, once]);
}

/** Asks once whether notifications may be shown; call it from a touch. */
export function allowNotifications() {
  quietly(() => (Notification.permission === "default" ? Notification.requestPermission() : undefined));
}
