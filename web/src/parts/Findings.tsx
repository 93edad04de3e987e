import type { Finding, Fix } from "../api/client";
import { Note } from "./Note";
import { Touch } from "./Touch";
import { SourceText, Why } from "./Why";

/** A way out that a station can take at a touch. */
export interface WayOut {
  text: string;
  take: () => void;
}

/** What the judge found, beside the thing it is about: what, what to do, and why. */
export function Findings({
  items,
  ways = () => [],
}: {
  items: Finding[];
  ways?: (fix: Fix) => readonly WayOut[];
}) {
  return items.map((item) => (
    <Note key={item.code + item.message} tone={item.severity}>
      <p data-finding={item.code}>
        <strong>{item.message}</strong> {item.do_now}
      </p>
      <div className="flex flex-wrap items-center gap-x-5">
        {item.fix != null &&
          ways(item.fix).map(({ text, take }) => (
            <Touch key={text} look="main" onPress={take} className="my-1">
              {text}
            </Touch>
          ))}
        <Why label="Why">
          <p className="mb-2">{item.why}</p>
          <SourceText source={item.source} />
          <p className="mt-2 text-muted">
            Your local extension office or food authority comes before Bodega.
          </p>
        </Why>
      </div>
    </Note>
  ));
}
