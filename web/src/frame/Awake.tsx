import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useSyncExternalStore } from "react";
import { ask } from "../queries/queries";
import { allowNotifications } from "../parts/useAlarm";
import { setDevice, useDevice } from "../device/device";
import { ring, soundState, switchOn } from "../parts/sound";
import { Touch } from "../parts/Touch";
import { useScreenAwake } from "./useScreenAwake";

/** While any clock runs: the screen stays lit, and where sound or light are off, one touch switches them on. */
export function Awake() {
  const { data: counter } = useQuery(ask.counter());
  const running = counter !== undefined && (counter.canners.length > 0 || counter.kettle !== null);
  const { refused, byFilm } = useScreenAwake(running);
  // Whatever is touched first lets the page make a sound; this touch itself is not taken away from under the finger.
  const own = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const touched = (event: PointerEvent) => {
      if (!(event.target instanceof Node && own.current?.contains(event.target))) switchOn();
    };
    document.addEventListener("pointerdown", touched);
    return () => document.removeEventListener("pointerdown", touched);
  }, []);
  const hears = useSyncExternalStore(soundState.subscribe, soundState.isOn);
  // That it is on here is kept, so that a page that was loaded anew can say what it lost.
  useEffect(() => {
    if (hears) setDevice({ sound: true });
  }, [hears]);
  const { sound } = useDevice();
  if (!running) return null;
  if (hears && !refused)
    return (
      <p className="text-sm font-semibold whitespace-nowrap text-muted">
        ♪ <span className="max-sm:sr-only">Sound is </span>on
      </p>
    );
  const words = hears
    ? { short: "Keep it lit", long: "The screen may go dark: touch here to keep it lit" }
    : refused
      ? { short: "Sound and light", long: "Sound is off, and the screen may go dark: touch here" }
      : sound
        ? { short: "Sound again?", long: "The page was loaded anew: touch for sound" }
        : { short: "Sound is off", long: "Sound is off: touch here" };
  return (
    <div ref={own}>
      <Touch
        className="w-full leading-tight"
        onPress={() => {
          switchOn();
          ring(1);
          allowNotifications();
          if (refused) byFilm();
        }}
      >
        <span className="lg:hidden">{words.short}</span>
        <span className="max-lg:hidden">{words.long}</span>
      </Touch>
    </div>
  );
}
