import type NoSleep from "nosleep.js";
import { useCallback, useEffect, useState } from "react";
import { quietly } from "../base/quietly";

/** Whether the screen stays lit; where the browser will not by itself, how to make it. */
export interface Awake {
  /** The browser lets the screen go dark. */
  refused: boolean;
  /** Keeps it lit with a silent film that runs out of sight; call it from a touch. */
  byFilm: () => void;
}

/** Keeps the screen lit while a clock runs. */
export function useScreenAwake(running: boolean): Awake {
  const [refused, setRefused] = useState(false);
  const [film, setFilm] = useState<NoSleep | null>(null);
  useEffect(() => {
    if (!running) return;
    let lock: WakeLockSentinel | undefined;
    let over = false;
    const release = () => quietly(() => lock?.release());
    const hold = async () => {
      if (document.visibilityState !== "visible") return;
      try {
        lock = await navigator.wakeLock.request("screen");
        setRefused(false);
        if (over) release();
      } catch {
        if (!over) setRefused(true);
      }
    };
    const seen = () => void hold();
    seen();
    document.addEventListener("visibilitychange", seen);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", seen);
      release();
    };
  }, [running]);
  useEffect(() => {
    if (film === null) return;
    if (!running) quietly(() => film.disable());
    return () => quietly(() => film.disable());
  }, [film, running]);
  const byFilm = useCallback(() => {
    quietly(async () => {
      const { default: Film } = await import("nosleep.js");
      const next = new Film();
      await next.enable();
      setFilm(next);
    });
  }, []);
  return { refused: running && refused && film === null, byFilm };
}
