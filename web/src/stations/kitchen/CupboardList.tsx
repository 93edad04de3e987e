import { useQuery } from "@tanstack/react-query";
import * as v from "valibot";
import { api, take, type Agent, type CountRequest } from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { number, useFields, type Bound } from "../../parts/fields";
import { AGENT, capital, jarText, MOUTH, shortDay } from "../../writing/format";
import { NumberOf } from "../../parts/FormFields";
import { leftOf } from "./model";
import { Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { Touch } from "../../parts/Touch";

function Line({
  name,
  unit,
  bound,
  counted,
  used,
  opened,
  onOpen,
  onCount,
}: {
  name: string;
  unit: string;
  bound: Bound;
  counted: number | null | undefined;
  used: number;
  opened?: string | null | undefined;
  onOpen?: () => void;
  onCount: (amount: number) => void;
}) {
  const { control, handleSubmit, reset } = useFields(v.object({ amount: number(bound) }), { amount: "" });
  const left = leftOf(counted, used);
  return (
    <form
      className="grid grid-cols-[minmax(0,1fr)_auto_auto] items-center gap-2"
      onSubmit={(event) =>
        void handleSubmit(({ amount }) => {
          onCount(amount);
          reset({ amount: "" });
        })(event)
      }
    >
      <p className="min-w-0 grow leading-tight">
        <strong>{name}</strong>
        <span className="block text-sm text-muted">
          {left === null ? "not counted" : `${left}${unit} there`}
          {used > 0 && `, ${Math.round(used)}${unit} taken by batches`}
          {opened != null && `, opened ${shortDay(opened)}`}
        </span>
      </p>
      <NumberOf quiet control={control} name="amount" label={name} bound={bound} />
      <Touch submit>Count</Touch>
      {onOpen !== undefined && left !== null && <Touch onPress={onOpen}>Opened today</Touch>}
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
      <div className="grid gap-x-8 gap-y-2 md:grid-cols-2">
        {cupboard.jars.map((line) => (
          <Line
            key={line.jar}
            name={`Empty ${jarText(line.jar, 2)}`}
            unit=""
            bound="CountRequest.count"
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
            bound="CountRequest.count"
            counted={line.counted}
            used={line.used}
            onCount={(amount) => count.mutate({ item: "lid", mouth: line.mouth, count: amount })}
          />
        ))}
        {cupboard.acids.map((line) => (
          <Line
            key={line.agent}
            name={capital(AGENT[line.agent])}
            unit={line.agent === "citric_acid" ? " g" : " mL"}
            bound="CountRequest.amount"
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
