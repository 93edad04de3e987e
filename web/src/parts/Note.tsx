import type { ReactNode } from "react";
import { Kept } from "../connection";
import { sentence } from "./sentence";

type Tone = "stop" | "warn" | "note" | "good";

const TONE: Record<Tone, { box: string; mark: string; word: string; sign: string }> = {
  stop: { box: "bg-tomato-wash", mark: "bg-tomato text-white", word: "Stop", sign: "✕" },
  warn: { box: "bg-brass-wash", mark: "bg-brass text-night", word: "Mind", sign: "!" },
  note: { box: "bg-cobalt-wash", mark: "bg-cobalt text-white", word: "Note", sign: "i" },
  good: { box: "bg-vine-wash", mark: "bg-vine text-white", word: "Good", sign: "✓" },
};

/** Something Bodega has to say, with a sign and a word besides its colour. */
export function Note({ tone, children }: { tone: Tone; children: ReactNode }) {
  const { box, mark, word, sign } = TONE[tone];
  return (
    <div role={tone === "stop" ? "alert" : "note"} className={`flex gap-3 rounded-2xl p-3.5 ${box}`}>
      <span
        className={`mt-0.5 grid size-7 shrink-0 place-items-center rounded-full font-bold ${mark}`}
        aria-label={word}
      >
        {sign}
      </span>
      <div className="min-w-0 leading-snug">{children}</div>
    </div>
  );
}

/** What the server refused, in its own words; or that it did not answer and the touch is kept. */
export function Trouble({ error }: { error: Error | null }) {
  if (error === null) return null;
  return (
    <Note tone={error instanceof Kept ? "note" : "stop"}>
      <p>{sentence(error.message)}</p>
    </Note>
  );
}
