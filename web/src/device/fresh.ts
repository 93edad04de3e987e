/** Two taps at one place are one: what newly appears under a finger takes no touch for a moment. A second tap that was meant for
 * what stood there before would say something else: "It boils" and then "Boil lost". What stays the same may be touched again at
 * once, as the steps of a number are. */

/** How long something new under a finger takes no touch. */
const FRESH_MS = 700;
/** How long after a touch something that appears counts as appearing under it: an answer may be slow. */
const AFTER_MS = 2_500;
/** How near counts as under the finger: half a knuckle, in pixels. */
const NEAR_PX = 24;

/** The mark of something that takes no touch yet. */
const MARK = "data-fresh";
/** What can be touched. */
const TOUCHABLE = "button, a[href], [role=radio], [role=checkbox], [role=tab], summary, label";

interface Touched {
  x: number;
  y: number;
  at: number;
}

/** Words without their digits: a clock that runs in a touch does not make another touch of it. */
export const wordsOf = (text: string | null | undefined) => (text ?? "").replace(/[\d.,:½⅓⅔¼¾⅛⅜⅝⅞]+/gu, "");

/** Whether something at a place lies under a finger that was there at a moment. */
export function isUnder(
  rect: Pick<DOMRect, "left" | "right" | "top" | "bottom">,
  touched: Touched | null,
  now: number,
): boolean {
  if (touched === null || now - touched.at > AFTER_MS) return false;
  const { x, y } = touched;
  const across = x >= rect.left - NEAR_PX && x <= rect.right + NEAR_PX;
  return across && y >= rect.top - NEAR_PX && y <= rect.bottom + NEAR_PX;
}

function touchableOf(node: Node): Element | null {
  const element = node instanceof Element ? node : node.parentElement;
  return element?.closest(TOUCHABLE) ?? null;
}

/** What can be touched and says something else by a change of the page. */
function changedBy(change: MutationRecord): Element[] {
  if (change.type === "characterData") {
    const touchable = touchableOf(change.target);
    const isNew = wordsOf(change.oldValue) !== wordsOf(change.target.textContent);
    return touchable !== null && isNew ? [touchable] : [];
  }
  if (change.type === "attributes") {
    const name = change.attributeName ?? "";
    const isNew =
      change.target instanceof Element &&
      wordsOf(change.oldValue) !== wordsOf(change.target.getAttribute(name));
    const touchable = touchableOf(change.target);
    return touchable !== null && isNew ? [touchable] : [];
  }
  const inside = touchableOf(change.target);
  if (inside !== null) {
    const words = (nodes: NodeList) => [...nodes].map((node) => wordsOf(node.textContent)).join("");
    return words(change.addedNodes) === words(change.removedNodes) ? [] : [inside];
  }
  return [...change.addedNodes].flatMap((node) =>
    node instanceof Element
      ? [...(node.matches(TOUCHABLE) ? [node] : []), ...node.querySelectorAll(TOUCHABLE)]
      : [],
  );
}

/** Watches the page: what newly appears under a finger is marked, and a touch on what is marked goes nowhere. */
export function restWhatIsNew() {
  let last: Touched | null = null;
  const note = (event: PointerEvent) => {
    last = { x: event.clientX, y: event.clientY, at: performance.now() };
  };
  const stop = (event: Event) => {
    if (!(event.target instanceof Element) || event.target.closest(`[${MARK}]`) === null) return;
    // A key is no second tap.
    if (event instanceof MouseEvent && event.type === "click" && event.detail === 0) return;
    event.preventDefault();
    event.stopImmediatePropagation();
  };
  document.addEventListener("pointerdown", stop, { capture: true });
  document.addEventListener("pointerdown", note, { capture: true });
  document.addEventListener("click", stop, { capture: true });
  const observer = new MutationObserver((changes) => {
    const now = performance.now();
    if (last === null || now - last.at > AFTER_MS) return;
    for (const element of new Set(changes.flatMap(changedBy))) {
      if (!isUnder(element.getBoundingClientRect(), last, now)) continue;
      element.setAttribute(MARK, "");
      setTimeout(() => element.removeAttribute(MARK), FRESH_MS);
    }
  });
  observer.observe(document.body, {
    subtree: true,
    childList: true,
    characterData: true,
    characterDataOldValue: true,
    attributeFilter: ["aria-label"],
    attributeOldValue: true,
  });
}
