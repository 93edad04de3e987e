import { useQuery } from "@tanstack/react-query";
import { useRef } from "react";
import { importRecords } from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { useSay } from "../../parts/notices";
import { Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";

const FILES = [
  { href: "/api/export.json", text: "Everything, JSON" },
  { href: "/api/jars.csv", text: "Jars, CSV" },
  { href: "/api/batches.csv", text: "Batches, CSV" },
  { href: "/api/harvest.csv", text: "Harvest, CSV" },
  { href: "/api/calendar.ics", text: "Dates, calendar" },
];

/** Backups that keep themselves, and everything in open formats. */
export function SafeKeeping() {
  const { data } = useQuery(ask.backups());
  const backups = data?.filter((file) => !file.set_aside);
  const aside = data?.filter((file) => file.set_aside) ?? [];
  const picker = useRef<HTMLInputElement>(null);
  const say = useSay();
  const bring = useChange(importRecords, (taken) => say(`${taken.batches} batches are here`));
  return (
    <Plate title="Safe keeping">
      {backups === undefined || backups.length === 0 ? (
        <p className="text-lg text-muted">The first backup is made within half an hour.</p>
      ) : (
        <p className="text-lg">
          The newest backup is{" "}
          <strong>{backups.find((file) => file.name.startsWith("daily-"))?.name ?? backups[0]?.name}</strong>.
          One of each day and week is kept, {backups.length} so far. To bring one back, stop Bodega and run{" "}
          <code>bodega restore FILE</code>.
        </p>
      )}
      {aside.length > 0 && (
        <p className="mt-2 text-lg">
          Not whole any more, kept aside, another made since:{" "}
          <strong>{aside.map((file) => file.name).join(", ")}</strong>. Bytes that change by themselves are an
          early sign of a failing disk.
        </p>
      )}
      <div className="mt-3 flex flex-wrap gap-x-5">
        {FILES.map(({ href, text }) => (
          <a
            key={href}
            href={href}
            download
            className="flex min-h-[48px] items-center font-semibold text-link underline underline-offset-4"
          >
            {text}
          </a>
        ))}
        <input
          ref={picker}
          type="file"
          accept="application/json,.json"
          className="hidden"
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file !== undefined) bring.mutate(file);
            event.target.value = "";
          }}
        />
        <Touch onPress={() => picker.current?.click()}>Bring everything in, into an empty kitchen</Touch>
      </div>
      <Trouble error={bring.error} />
    </Plate>
  );
}
