import { useState } from "react";
import * as v from "valibot";
import {
  api,
  take,
  type CookEventRequest,
  type CookView,
  type FlaggedLine,
  type Units,
} from "../../api/client";
import { useChange, useUndoLine } from "../../queries/queries";
import { WORDS } from "../../api/words.generated";
import { useSay } from "../../parts/notices";
import { optionsOf } from "../../parts/Choice";
import { number, useFields, useRefusal } from "../../parts/fields";
import { clockText, HEAT_SETTING } from "../../writing/format";
import { NumberOf } from "../../parts/FormFields";
import { Note, Trouble } from "../../parts/Note";
import { Touch } from "../../parts/Touch";
import { volumeScale } from "../../writing/units";
import { lineText } from "./model";

type Ask = FlaggedLine["asks"][number];

/** How much went in or was taken off before the reading. */
function HowMuch({
  ask,
  units,
  pending,
  error,
  onSend,
}: {
  ask: "more_went_in" | "taken_off";
  units: Units;
  pending: boolean;
  error: Error | null;
  onSend: (body: CookEventRequest) => void;
}) {
  const schema = v.object({ litres: number("CookEventRequest.drain_l", volumeScale(units)) });
  const form = useFields(schema, { litres: "" });
  const left = useRefusal(form, error, { add_l: "litres", drain_l: "litres", ladle_l: "litres" });
  const send = (field: "add_l" | "drain_l" | "ladle_l") =>
    void form.handleSubmit(({ litres }) => onSend({ [field]: litres }))();
  return (
    <form className="mt-3 grid gap-3" onSubmit={(event) => event.preventDefault()}>
      <NumberOf
        control={form.control}
        name="litres"
        label={ask === "more_went_in" ? "How much went in" : "How much was taken off"}
        bound="CookEventRequest.drain_l"
        scale={volumeScale(units)}
      />
      <div className="flex flex-wrap gap-2">
        {ask === "more_went_in" ? (
          <Touch disabled={pending} onPress={() => send("add_l")}>
            It went in
          </Touch>
        ) : (
          <>
            <Touch disabled={pending} onPress={() => send("ladle_l")}>
              Thin juice, ladled off
            </Touch>
            <Touch disabled={pending} onPress={() => send("drain_l")}>
              Well mixed
            </Touch>
          </>
        )}
      </div>
      <Trouble error={left} />
    </form>
  );
}

/** A reading that disagrees with all else: asked about before it is put aside. */
export function Asked({ cook, flag, units }: { cook: CookView; flag: FlaggedLine; units: Units }) {
  const say = useSay();
  const [open, setOpen] = useState<Ask | null>(null);
  const path = { params: { path: { id: cook.id } } };
  const explain = useChange(
    (body: CookEventRequest) =>
      take(api.POST("/api/cooks/{id}/events", { ...path, body: { ...body, before: flag.at } })),
    () => say("Written down before that reading"),
  );
  const sure = useChange((stands: boolean) =>
    take(
      api.PATCH("/api/cooks/{id}/events/{at}", {
        params: { path: { id: cook.id, at: flag.at } },
        body: { sure: stands },
      }),
    ),
  );
  const remove = useUndoLine(cook.id);
  const read = cook.log[flag.line];
  const pending = explain.isPending || sure.isPending || remove.isPending;
  return (
    <Note tone="warn">
      <p>
        <strong>
          {clockText(flag.at)} {read === undefined ? "" : lineText(read, units)}
        </strong>{" "}
        {flag.obeyed
          ? "does not fit what was told before, but what was read since bears it out: the time goes with it. What happened?"
          : "does not fit the rest. Until you say why, the time goes without it."}
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        {flag.asks.map((ask) => (
          <Touch key={ask} onPress={() => setOpen(open === ask ? null : ask)}>
            {WORDS.Asks[ask]}
          </Touch>
        ))}
        <Touch
          disabled={pending}
          onPress={() => {
            sure.mutate(true);
            say("It counts now", () => sure.mutate(false));
          }}
        >
          It is right
        </Touch>
        <Touch disabled={pending} onPress={() => remove.mutate(flag.at)}>
          Read wrong: take it out
        </Touch>
      </div>
      {open === "heat_turned" && (
        <div className="mt-3 flex flex-wrap gap-2">
          {optionsOf(["low", "medium", "high"] as const, HEAT_SETTING).map((setting) => (
            <Touch
              key={setting.value}
              disabled={pending}
              onPress={() => explain.mutate({ setting: setting.value })}
            >
              {setting.text}
            </Touch>
          ))}
        </div>
      )}
      {(open === "more_went_in" || open === "taken_off") && (
        <HowMuch
          key={open}
          ask={open}
          units={units}
          pending={pending}
          error={explain.error}
          onSend={(body) => explain.mutate(body)}
        />
      )}
      <Trouble error={sure.error ?? remove.error ?? (open === "heat_turned" ? explain.error : null)} />
    </Note>
  );
}
