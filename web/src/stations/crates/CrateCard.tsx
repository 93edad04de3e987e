import { useState } from "react";
import * as v from "valibot";
import { api, take, type Lot, type Units } from "../../api/client";
import { useChange } from "../../queries/queries";
import {
  ageText,
  capital,
  clockText,
  CONDITION,
  FAULT,
  isDue,
  shortDay,
  weightText,
} from "../../writing/format";
import { Fold } from "../../parts/Fold";
import { Findings } from "../../parts/Findings";
import { NameNote } from "../../parts/NameNote";
import { Touch } from "../../parts/Touch";
import { NumberOf } from "../../parts/FormFields";
import { number, useFields } from "../../parts/fields";
import { plain, weighedIn } from "../../writing/units";
import { waitText } from "../../parts/wait";
import { LotFood } from "./LotFood";
import { told, tomatoesDrawn } from "./model";

const SKIN = { firm_ripe: "#c8371f", trim: "#d6603c", unripe: "#9db35a", out: "#8a7f78" } as const;

/** Juice and cooked food stand in a jug. */
function JugPicture({ frozen }: { frozen: boolean }) {
  return (
    <svg
      viewBox="0 0 132 74"
      className="h-[68px] w-[122px] shrink-0"
      aria-hidden="true"
      stroke="var(--color-ink)"
      strokeWidth="2"
    >
      <path d="M46 24h40l-4 44H50z" fill={frozen ? "#cfe3ef" : "#c8371f"} />
      <path d="M44 6h38l8 6-6 4 4 52H46L44 6z" fill="none" strokeLinejoin="round" />
      <path d="M86 22c18 0 18 28 1 30" fill="none" />
    </svg>
  );
}

/** A crate with as many tomatoes as it has weight left. */
function CratePicture({ lot }: { lot: Lot }) {
  const count = tomatoesDrawn(lot);
  const radius = lot.kind === "cherry" ? 4.5 : lot.kind === "slicer" ? 8 : 6.5;
  const perRow = 9;
  return (
    <svg
      viewBox="0 0 132 74"
      className="h-[68px] w-[122px] shrink-0"
      aria-hidden="true"
      stroke="var(--color-ink)"
      strokeWidth="1.8"
    >
      {Array.from({ length: count }, (_, i) => {
        const row = Math.floor(i / perRow);
        const x = 16 + (i % perRow) * 12.5 + (row % 2) * 4;
        const y = 38 - row * 11;
        return lot.kind === "paste" ? (
          <ellipse key={i} cx={x} cy={y} rx={radius - 1} ry={radius + 2} fill={SKIN[lot.condition]} />
        ) : (
          <circle key={i} cx={x} cy={y} r={radius} fill={SKIN[lot.condition]} />
        );
      })}
      <path d="M4 38h124l-7 32H11z" fill={lot.frozen ? "#cfe3ef" : "#d9b98a"} />
      <path d="M6 49h120M9 60h114" />
    </svg>
  );
}

const schema = v.object({ weight: number("Weight.value") });

/** Puts the weight of a whole lot right. */
function FixWeight({
  units,
  onCorrect,
  onKeep,
}: {
  units: Units;
  onCorrect: (value: number) => void;
  onKeep: () => void;
}) {
  const { control, handleSubmit } = useFields(schema, { weight: "" });
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(event) => void handleSubmit(({ weight }) => onCorrect(weight))(event)}
    >
      <NumberOf
        control={control}
        name="weight"
        label="Weight of the whole lot"
        bound="Weight.value"
        scale={plain(weighedIn(units))}
      />
      <Touch submit look="main">
        Correct
      </Touch>
      <Touch onPress={onKeep}>Keep</Touch>
    </form>
  );
}

export function CrateCard({
  lot,
  units,
  now,
  onTakeOff,
  onRipe,
  onCorrect,
}: {
  lot: Lot;
  units: Units;
  now: number;
  onTakeOff: () => void;
  onRipe: () => void;
  onCorrect: (value: number) => void;
}) {
  const [fixing, setFixing] = useState(false);
  const name = useChange((body: { name: string; note: string }) =>
    take(api.PUT("/api/lots/{id}/name", { params: { path: { id: lot.id } }, body })),
  );
  return (
    <li
      className="flex flex-wrap items-center gap-x-3 gap-y-2 rounded-2xl border-2 border-edge bg-enamel px-3 py-2"
      data-lot={lot.id}
    >
      <div className="flex min-w-0 flex-1 basis-56 items-center gap-3">
        {lot.food === "fruit" ? <CratePicture lot={lot} /> : <JugPicture frozen={lot.frozen} />}
        <div className="min-w-0 leading-snug">
          <p className="font-semibold">
            <span className="mr-2 font-slab text-2xl font-bold">{weightText(lot.left_g, units)}</span>
            {capital(lot.words)}
            {lot.name != null && <span className="font-normal">, {lot.name}</span>}
          </p>
          {lot.note != null && <p className="text-sm">{lot.note}</p>}
          <p className="text-sm text-muted">
            {lot.told != null && `${told(lot.told)}. `}
            {lot.food === "fruit"
              ? `${CONDITION[lot.condition]}${lot.fault == null ? "" : ` (${FAULT[lot.fault].toLowerCase()})`}, ${
                  lot.frozen ? `frozen ${shortDay(lot.picked_on)}` : ageText(lot.picked_on, now)
                }`
              : lot.chilled_at != null && `In the refrigerator since ${clockText(lot.chilled_at)}`}
            {lot.poured_g > 0 && `, ${weightText(lot.poured_g, units)} of water poured off`}
          </p>
          {lot.wait != null && lot.back_on == null && (
            <p className={`text-sm font-semibold ${lot.is_late ? "text-alarm" : "text-muted"}`}>
              {lot.is_late ? "Too late: " : ""}
              {waitText(lot.wait, now)}
            </p>
          )}
          {lot.back_on != null && (
            <p className={`text-sm font-semibold ${isDue(lot.back_on, now) ? "text-alarm" : "text-muted"}`}>
              {isDue(lot.back_on, now) ? "Look at it now" : `On the sill until ${shortDay(lot.back_on)}`}
            </p>
          )}
        </div>
      </div>
      {fixing ? (
        <FixWeight
          units={units}
          onCorrect={(value) => {
            onCorrect(value);
            setFixing(false);
          }}
          onKeep={() => setFixing(false)}
        />
      ) : (
        <div className="flex w-full flex-wrap gap-2">
          {lot.condition === "unripe" && (
            <Touch onPress={onRipe} look="done">
              Ripe now
            </Touch>
          )}
          <LotFood lot={lot} units={units} />
          <Fold words="Mend">
            <div className="flex flex-wrap gap-2">
              <NameNote
                of={lot}
                example="the yellow ones"
                error={name.error}
                onKeep={(named) => name.mutate(named)}
              />
              <Touch onPress={() => setFixing(true)}>Fix weight</Touch>
              <Touch onPress={onTakeOff}>Take off</Touch>
            </div>
          </Fold>
        </div>
      )}
      {lot.findings.length > 0 && (
        <div className="grid w-full gap-2">
          <Findings items={lot.findings} />
        </div>
      )}
    </li>
  );
}
