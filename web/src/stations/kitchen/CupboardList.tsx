import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import { api, take, type Agent, type CountRequest } from "../../api/client";
import { ask, useChange } from "../../api/queries";
import { AGENT, jarText, MOUTH, shortDay, isNumber } from "../../parts/format";
import { Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";

function Line({
  name,
  unit,
  counted,
  used,
  opened,
  onOpen,
  onCount,
}: {
  name: string;
  unit: string;
  counted: number | null | undefined;
  used: number;
  opened?: string | null | undefined;
  onOpen?: () => void;
  onCount: (amount: number) => void;
}) {
  const id = useId();
  const [typed, setTyped] = useState("");
  const amount = Number(typed);
  const ready = isNumber(typed);
  const left = counted == null ? null : Math.max(0, Math.round(counted - used));
  return (
    <form
      className="flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (ready) onCount(amount);
        setTyped("");
      }}
    >
      <label htmlFor={id} className="min-w-0 grow leading-tight">
        <strong>{name}</strong>
        <span className="block text-sm text-muted">
          {left === null ? "not counted" : `${left}${unit} there`}
          {used > 0 && `, ${Math.round(used)}${unit} taken by batches`}
          {opened != null && `, opened ${shortDay(opened)}`}
        </span>
      </label>
      {onOpen !== undefined && left !== null && <Touch onPress={onOpen}>Opened today</Touch>}
      <input
        id={id}
        inputMode="decimal"
        autoComplete="off"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        className="min-h-[48px] w-20 rounded-xl border-2 border-line bg-white px-2 text-center font-slab text-lg font-bold"
      />
      <Touch
        disabled={!ready}
        onPress={() => {
          onCount(amount);
          setTyped("");
        }}
      >
        Count
      </Touch>
    </form>
  );
}

/** Empty jars, lids and acid: counted once, taken down by batches. */
export function CupboardList() {
  const { data: cupboard } = useQuery(ask.stock());
  const count = useChange((body: CountRequest) => take(api.PUT("/api/stock", { body })));
  const open = useChange((agent: Agent) => take(api.PUT("/api/stock/bottle", { body: { agent } })));
  if (cupboard === undefined) return null;
  return (
    <Plate title="In the cupboard">
      <div className="grid gap-x-8 gap-y-2 sm:grid-cols-2">
        {cupboard.jars.map((line) => (
          <Line
            key={line.jar}
            name={`Empty ${jarText(line.jar, 2)}`}
            unit=""
            counted={line.counted}
            used={line.used}
            onCount={(amount) => count.mutate({ item: "jar", jar: line.jar, count: amount })}
          />
        ))}
        {cupboard.lids.map((line) => (
          <Line
            key={line.mouth}
            name={`Lids, ${MOUTH[line.mouth]}`}
            unit=""
            counted={line.counted}
            used={line.used}
            onCount={(amount) => count.mutate({ item: "lid", mouth: line.mouth, count: amount })}
          />
        ))}
        {cupboard.acids.map((line) => (
          <Line
            key={line.agent}
            name={AGENT[line.agent].charAt(0).toUpperCase() + AGENT[line.agent].slice(1)}
            unit={line.agent === "citric_acid" ? " g" : " mL"}
            counted={line.counted}
            used={line.used}
            opened={line.opened_on}
            {...(line.agent === "bottled_lemon_juice" && { onOpen: () => open.mutate(line.agent) })}
            onCount={(amount) => count.mutate({ item: "acid", agent: line.agent, amount })}
          />
        ))}
      </div>
      <div className="mt-3">
        <Trouble error={count.error ?? open.error} />
      </div>
    </Plate>
  );
}
