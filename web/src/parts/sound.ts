import { quietly } from "./quietly";

const BEEPS = 3;
const BEEP_S = 0.35;

let sound: AudioContext | null = null;
const listeners = new Set<() => void>();

/** The one way to the loudspeaker; it stays shut until somebody has touched the page. */
function speaker(): AudioContext | null {
  if (sound === null) {
    quietly(() => {
      sound = new AudioContext();
      sound.addEventListener("statechange", () => listeners.forEach((listener) => listener()));
    });
  }
  return sound;
}

export const soundState = {
  subscribe: (listener: () => void) => {
    listeners.add(listener);
    return () => void listeners.delete(listener);
  },
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
