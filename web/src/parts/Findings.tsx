import type { Finding, Fix } from "../api/client";
import { Note } from "./Note";
import { Touch } from "./Touch";
import { SourceText, Why } from "./Why";

/** The ways out that a station can take at a touch. */
export type Ways = Partial<Record<Fix["way"], { text: (fix: Fix) => string; take: () => void }>>;

/** What the judge found, beside the thing it is about: what, what to do, and why. */
export function Findings({ items, ways = {} }: { items: Finding[]; ways?: Ways }) {
  return items.map((item) => {
    const way = item.fix == null ? undefined : ways[item.fix.way];
    return (
      <Note key={item.code + item.message} tone={item.severity}>
        <p data-finding={item.code}>
          <strong>{item.message}</strong> {item.do_now}
        </p>
        <div className="flex flex-wrap items-center gap-x-5">
          {way !== undefined && item.fix != null && (
            <Touch look="main" onPress={way.take} className="my-1">
              {way.text(item.fix)}
            </Touch>
          )}
          <Why label="Why">
            <p className="mb-2">{item.why}</p>
            <SourceText source={item.source} />
            <p className="mt-2 text-muted">
              Your local extension office or food authority comes before Bodega.
            </p>
          </Why>
        </div>
      </Note>
    );
  });
}
