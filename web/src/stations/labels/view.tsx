import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { Refused, type Paper, type Shape } from "../../api/client";
import { Connection } from "../../frame/Connection";
import { Alarms } from "../../frame/Alarms";
import { Awake } from "../../frame/Awake";
import { ask, type LabelQuery } from "../../queries/queries";
import { WORDS } from "../../api/words.generated";
import { Choice, optionsOf } from "../../parts/Choice";
import { Trouble } from "../../parts/Note";
import { fieldOf } from "../../parts/fields";
import { NumberField } from "../../parts/NumberField";
import { parseNumber } from "../../writing/number";
import { sentence } from "../../parts/sentence";
import { Touch } from "../../parts/Touch";

/** The address of the same labels as PDF. */
function pdfOf(query: LabelQuery): string {
  const words = Object.entries(query).flatMap(([key, value]) =>
    value == null ? [] : [[key, String(value)]],
  );
  return `/api/labels.pdf?${new URLSearchParams(words).toString()}`;
}

/** One page of labels as a file. */
function saveSvg(svg: string, page: number) {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([svg], { type: "image/svg+xml" }));
  link.download = `labels-${page + 1}.svg`;
  link.click();
  URL.revokeObjectURL(link.href);
}

/** Labels on the sheet they are printed on, to the millimetre. It stands alone, so that nothing else is printed. */
export function LabelsPage() {
  const [search] = useSearchParams();
  const [shape, setShape] = useState<Shape>("round");
  const [paper, setPaper] = useState<Paper>("a4");
  const [wide, setWide] = useState("60");
  const [high, setHigh] = useState("35");
  const [gap, setGap] = useState("4");
  const [start, setStart] = useState("1");
  const query: LabelQuery = {
    jars: search.get("jars") ?? "",
    shape,
    paper,
    width_mm: parseNumber(wide, "mm") ?? 0,
    ...(shape === "rectangle" ? { height_mm: parseNumber(high, "mm") ?? 0 } : {}),
    gap_mm: parseNumber(gap, "mm") ?? 0,
    start: parseNumber(start) ?? 0,
  };
  const { data, error } = useQuery(ask.labels(query));
  const wrong = (field: string) => {
    const place = fieldOf(error, { [field]: field });
    return place === null || error === null ? undefined : sentence(error.message);
  };
  const size = data === undefined ? null : { width: data.paper_width_mm, height: data.paper_height_mm };
  return (
    <div className="mx-auto max-w-[1280px] p-3 sm:p-5 print:m-0 print:max-w-none print:p-0">
      {size !== null && <style>{`@page { size: ${size.width}mm ${size.height}mm; margin: 0; }`}</style>}
      <div className="mb-3 print:hidden">
        <Alarms />
        <Awake />
      </div>
      <h1 className="sr-only">Labels</h1>
      <header className="mb-4 flex flex-wrap items-end gap-4 print:hidden">
        <Link
          to="/towel"
          className="flex min-h-[52px] items-center font-semibold text-link underline underline-offset-4"
        >
          Back
        </Link>
        <Choice
          label="Labels"
          value={shape}
          options={[
            { value: "round", text: "Round, for lids" },
            { value: "rectangle", text: "Rectangular" },
          ]}
          onChoose={setShape}
        />
        <Choice
          label="Paper"
          value={paper}
          options={optionsOf(["a4", "letter"] as const, WORDS.Paper)}
          onChoose={setPaper}
        />
        <NumberField
          label={shape === "round" ? "Across" : "Wide"}
          typed={wide}
          unit="mm"
          onType={setWide}
          error={wrong("width_mm")}
        />
        {shape === "rectangle" && (
          <NumberField label="High" typed={high} unit="mm" onType={setHigh} error={wrong("height_mm")} />
        )}
        <NumberField label="Gap" typed={gap} unit="mm" onType={setGap} error={wrong("gap_mm")} />
        <NumberField
          label="First free place on the sheet"
          typed={start}
          step={1}
          least={1}
          onType={setStart}
          error={wrong("start")}
        />
        <Touch look="main" disabled={data === undefined} onPress={() => window.print()}>
          Print
        </Touch>
        <a
          href={pdfOf(query)}
          className="flex min-h-[52px] items-center font-semibold text-link underline underline-offset-4"
        >
          As PDF
        </a>
        {data?.pages.map((svg, page) => (
          <Touch key={page} onPress={() => saveSvg(svg, page)}>
            {data.pages.length > 1 ? `SVG ${page + 1}` : "As SVG"}
          </Touch>
        ))}
        <p className="w-full text-muted">
          Print at 100 %, without fitting to the page.
          {data !== undefined && ` ${data.columns} in a row, ${data.rows} rows.`}
        </p>
        <Trouble error={error instanceof Refused && error.problem.field != null ? null : error} />
      </header>
      <Connection />
      {size !== null &&
        data?.pages.map((svg, page) => (
          <div
            key={page}
            data-sheet={page + 1}
            className="mb-4 inline-block border-2 border-line bg-[#fff] align-top print:m-0 print:block print:break-after-page print:border-0 print:last:break-after-auto print:[&>svg]:max-w-none [&>svg]:block [&>svg]:h-auto [&>svg]:max-w-full"
            // The server's own drawing; every word in it is escaped there.
            dangerouslySetInnerHTML={{ __html: svg }}
          />
        ))}
    </div>
  );
}
