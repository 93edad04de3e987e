import { quietly } from "../base/quietly";
import { signal } from "../base/signal";

const BEEPS = 3;
const BEEP_S = 0.35;

let sound: AudioContext | null = null;
const changed = signal();

/** The one way to the loudspeaker; it stays shut until somebody has touched the page. */
function speaker(): AudioContext | null {
  if (sound === null) {
    quietly(() => {
      sound = new AudioContext();
      sound.addEventListener("statechange", changed.tell);
    });
  }
  return sound;
}

export const soundState = {
  subscribe: changed.subscribe,
  /** Whether an alarm would be heard. */
  isOn: () => speaker()?.state === "running",
};

/** Switches the sound on; call it from a touch. */
export function switchOn() {
  quietly(() => speaker()?.resume());
}

/** So many short tones, loud enough for a kitchen. */
export function ring(beeps = BEEPS) {
  const by = speaker();
  if (by === null) return;
  for (let i = 0; i < beeps; i++) {
    const tone = by.createOscillator();
    const loud = by.createGain();
    const at = by.currentTime + i * BEEP_S * 1.6;
    tone.frequency.value = 880;
    loud.gain.setValueAtTime(0.4, at);
    loud.gain.exponentialRampToValueAtTime(0.001, at + BEEP_S);
    tone.connect(loud).connect(by.destination);
    tone.start(at);
    tone.stop(at + BEEP_S);
  }
}
