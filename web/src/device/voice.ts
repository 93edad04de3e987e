import { quietly } from "../base/quietly";

/** A voice that lives in this machine; none is asked for over a network. */
function localVoice(): SpeechSynthesisVoice | undefined {
  const voices = window.speechSynthesis.getVoices().filter((voice) => voice.localService);
  return voices.find((voice) => voice.lang.startsWith("en")) ?? voices[0];
}

/** Says something aloud, by the browser's own voice; silent where there is none. */
export function sayAloud(text: string) {
  quietly(() => {
    const voice = localVoice();
    if (voice === undefined) return;
    const words = new SpeechSynthesisUtterance(spoken(text));
    words.voice = voice;
    words.lang = voice.lang;
    window.speechSynthesis.cancel();
    window.speechSynthesis.speak(words);
  });
}

/** Whether this browser has a voice of its own. */
export function hasVoice(): boolean {
  let has = false;
  quietly(() => {
    has = localVoice() !== undefined;
  });
  return has;
}

/** Calls back when the browser has found its voices, which it does after the page is there. */
export function onVoices(listener: () => void): () => void {
  quietly(() => window.speechSynthesis.addEventListener("voiceschanged", listener));
  return () => quietly(() => window.speechSynthesis.removeEventListener("voiceschanged", listener));
}

const WORDS: [RegExp, string][] = [
  [/\b(\d+):(\d\d):(\d\d)\b/g, "$1 hours $2 minutes"],
  [/\b0*(\d+):(\d\d) left\b/g, "$1 minutes $2 left"],
  [/½/g, " one half"],
  [/¼/g, " a quarter"],
  [/¾/g, " three quarters"],
  [/\bTbsp\b/g, "tablespoons"],
  [/\btsp\b/g, "teaspoons"],
  [/\blb\b/g, "pounds"],
  [/\bqt\b/g, "quarts"],
  [/\bft\b/g, "feet"],
  [/\bmin\b/g, "minutes"],
  [/\bh\b/g, "hours"],
];

/** Short signs as they are spoken. */
export function spoken(text: string): string {
  return WORDS.reduce((said, [sign, word]) => said.replace(sign, word), text);
}
