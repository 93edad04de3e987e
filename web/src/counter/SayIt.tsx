import { useDevice } from "../device/device";
import { sayAloud } from "../device/voice";
import { Touch } from "../parts/Touch";

/** The number of the moment with its words, as it stands on the page. */
function momentText(): string {
  const parts = [...document.querySelectorAll("[data-moment]")].map((part) => part.textContent.trim());
  return parts.length > 0 ? parts.join(". ") : (document.querySelector("h1")?.textContent ?? "");
}

/** One touch says the number of the moment aloud, where the voice is switched on. */
export function SayIt() {
  const { voice } = useDevice();
  if (!voice) return null;
  return <Touch onPress={() => sayAloud(momentText())}>Say it</Touch>;
}
