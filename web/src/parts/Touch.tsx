import type { ReactNode } from "react";
import type { useHold } from "./useHold";

type Look = "main" | "plain" | "heat" | "done";

const LOOK: Record<Look, string> = {
  main: "border-cobalt-deep bg-cobalt text-white hover:bg-cobalt-deep",
  plain: "border-cobalt bg-porcelain text-ink hover:bg-cobalt-wash",
  heat: "border-tomato-deep bg-tomato text-white hover:bg-tomato-deep",
  done: "border-[#1f5230] bg-vine text-white hover:bg-[#255a33]",
};

/** A touch target for a wet knuckle, with its key beside the words. */
export function Touch({
  children,
  onPress,
  submit = false,
  look = "plain",
  shortcut,
  disabled = false,
  big = false,
  className = "",
  label,
  expanded,
  hold,
}: {
  children: ReactNode;
  onPress?: () => void;
  /** Sends the form it stands in. */
  submit?: boolean;
  look?: Look;
  shortcut?: string;
  disabled?: boolean;
  big?: boolean;
  className?: string;
  /** For a sign that is not a word. */
  label?: string;
  /** For one that opens something under it: whether that is open. */
  expanded?: boolean;
  /** Instead of a press, for a touch that repeats while the finger stays. */
  hold?: ReturnType<typeof useHold>;
}) {
  const size = big ? "min-h-[72px] px-6 text-xl" : "min-h-[50px] px-4 text-base";
  return (
    <button
      type={submit ? "submit" : "button"}
      onClick={onPress}
      aria-label={label}
      aria-expanded={expanded}
      {...hold}
      disabled={disabled}
      className={`inline-flex items-center justify-center gap-3 rounded-2xl border-[3px] font-semibold transition-colors disabled:border-line disabled:bg-cloth disabled:text-muted ${size} ${LOOK[look]} ${className}`}
    >
      {children}
      {shortcut !== undefined && (
        <kbd
          aria-hidden="true"
          className="hidden rounded-md border-2 border-current/50 px-1.5 font-plain text-sm sm:inline"
        >
          {shortcut}
        </kbd>
      )}
    </button>
  );
}
