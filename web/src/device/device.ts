import { useSyncExternalStore } from "react";
import * as v from "valibot";
import { quietly } from "../base/quietly";
import { signal } from "../base/signal";

const schema = v.object({
  /** Dark is for a dim kitchen or the night's lids. */
  look: v.fallback(v.picklist(["light", "dark"]), "light"),
  /** Large is for two metres. */
  figures: v.fallback(v.picklist(["usual", "large"]), "usual"),
  /** The browser's own voice says alarms and, when asked, the number of the moment. */
  voice: v.fallback(v.boolean(), false),
  /** Letters work the touches. */
  keys: v.fallback(v.boolean(), true),
  /** Simulated devices stand at the stations, to practise with. */
  practice: v.fallback(v.boolean(), false),
  /** Somebody switched the sound on here; after a reload the browser wants another touch. */
  sound: v.fallback(v.boolean(), false),
});

/** What one screen is set to, whatever the household's other screens are. */
export type Device = v.InferOutput<typeof schema>;

const KEPT_AS = "bodega.device";
const changed = signal();
let device: Device | null = null;

/** What was kept, as far as it can be read; what cannot be is as at first. */
export function readDevice(kept: string | null): Device {
  try {
    return v.parse(schema, kept === null ? {} : JSON.parse(kept));
  } catch {
    return v.parse(schema, {});
  }
}

/** How this screen is set now. */
export function deviceNow(): Device {
  if (device === null) {
    let kept: string | null = null;
    quietly(() => {
      kept = localStorage.getItem(KEPT_AS);
    });
    device = readDevice(kept);
  }
  return device;
}

/** Gives the page the look that is set here. */
export function dress() {
  const { look, figures } = deviceNow();
  Object.assign(document.documentElement.dataset, { look, figures });
}

/** Sets this screen; kept for the next time. */
export function setDevice(change: Partial<Device>) {
  device = { ...deviceNow(), ...change };
  const kept = JSON.stringify(device);
  quietly(() => localStorage.setItem(KEPT_AS, kept));
  dress();
  changed.tell();
}

/** How this screen is set, and again when that changes. */
export function useDevice(): Device {
  return useSyncExternalStore(changed.subscribe, deviceNow);
}
