import { useEffect, useRef, type RefObject } from "react";
import { deviceNow } from "../device/device";

/** A key and what it does, in the words of its touch. */
export interface ShortKey {
  key: string;
  text: string;
  press: () => void;
}

const pages = new Set<RefObject<readonly ShortKey[]>>();

/** The keys of the page that is open. */
export function keysNow(): ShortKey[] {
  return [...pages].flatMap((page) => page.current);
}

/** Whether a stroke is typed into a field, or meant for the browser. */
export function isTyping(event: KeyboardEvent): boolean {
  const field =
    event.target instanceof HTMLElement &&
    event.target.closest("input, select, textarea, [role=combobox], [role=listbox], [role=dialog]");
  return Boolean(field) || event.ctrlKey || event.metaKey || event.altKey || event.repeat;
}

/** One key, one touch, where keys are switched on; keys typed into a field, with a modifier or held down are left alone. */
export function useKeys(keys: readonly ShortKey[]) {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    pages.add(latest);
    const listen = (event: KeyboardEvent) => {
      if (isTyping(event) || !deviceNow().keys) return;
      latest.current.find((one) => one.key.toLowerCase() === event.key.toLowerCase())?.press();
    };
    window.addEventListener("keydown", listen);
    return () => {
      pages.delete(latest);
      window.removeEventListener("keydown", listen);
    };
  }, []);
}

/** How long a second digit is waited for. */
const SECOND_DIGIT_MS = 900;

/**
 * Takes the numbers that are typed, digit by digit: `numbers` are those that mean something. One is taken at once when no
 * other begins with it, else after a moment.
 */
export function useTypedNumber(numbers: readonly number[], onNumber: (number: number) => void) {
  const latest = useRef({ numbers, onNumber });
  useEffect(() => {
    latest.current = { numbers, onNumber };
  });
  useEffect(() => {
    let typed = "";
    let timer: ReturnType<typeof setTimeout> | undefined;
    const done = () => {
      const number = Number(typed);
      typed = "";
      if (latest.current.numbers.includes(number)) latest.current.onNumber(number);
    };
    const listen = (event: KeyboardEvent) => {
      if (isTyping(event) || !deviceNow().keys || !/^\d$/.test(event.key)) return;
      typed += event.key;
      clearTimeout(timer);
      const longer = latest.current.numbers.some(
        (number) => String(number).startsWith(typed) && String(number) !== typed,
      );
      if (longer) timer = setTimeout(done, SECOND_DIGIT_MS);
      else done();
    };
    window.addEventListener("keydown", listen);
    return () => {
      clearTimeout(timer);
      window.removeEventListener("keydown", listen);
    };
  }, []);
}
