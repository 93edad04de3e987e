import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Product, ShelfGroup } from "../../api/client";
import { ask } from "../../queries/queries";
import { Choice } from "../../parts/Choice";
import {
  AGENT,
  batchText,
  contentText,
  dayText,
  jarsText,
  jarText,
  PRODUCT,
  dayOf,
} from "../../writing/format";
import { JarPicture } from "../../parts/JarPicture";
import { Trouble } from "../../parts/Note";
import { Pending } from "../../parts/Pending";
import { Answer, Plate } from "../../parts/Plate";
import { TextField } from "../../parts/TextField";
import { Touch } from "../../parts/Touch";
import { ColdFood } from "./ColdFood";
import { Leave } from "./Leave";
import { NextSeason } from "./NextSeason";
import { Fold } from "../../parts/Fold";
import { Way } from "../../parts/Way";

const ORDER: readonly Product[] = [
  "whole",
  "crushed",
  "sauce",
  "paste",
  "juice",
  "vegetable_juice",
  "recipe",
];
/** Jars drawn of one batch before the rest is a number. */
const DRAWN = 6;
/** Batches drawn of one product before the rest is a number; the search finds the others. */
const BATCHES = 24;
/** Batches that one more touch shows. */
const MORE = 40;

/** Finds one jar by the number on its label, when the address in the code there has changed. */
function FindJar() {
  const go = useNavigate();
  const [typed, setTyped] = useState("");
  const id = Number(typed.replace(/\D/gu, ""));
  return (
    <form
      className="flex items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (id > 0) void go(`/jar/${id}`);
      }}
    >
      <div className="w-28">
        <TextField label="Jar number" typed={typed} onType={setTyped} />
      </div>
      <Touch submit disabled={id === 0}>
        Find it
      </Touch>
    </form>
  );
}

function Group({ group }: { group: ShelfGroup }) {
  const name = `${contentText(group)}, ${jarText(group.size)} of ${group.code}`;
  return (
    <article data-batch={group.code} className="min-w-0">
      <Leave which={{ batch: group.batch, size: group.size }} title={`Take one: ${name}`}>
        <button
          type="button"
          className="flex min-h-[48px] items-end border-b-[7px] border-[#a87b47] px-1 hover:border-cobalt"
        >
          <span className="sr-only">Take one {name}</span>
          {Array.from({ length: Math.min(group.count, DRAWN) }, (_, i) => (
            <span key={i} className="-mx-0.5 h-16 w-10">
              <JarPicture size={group.size} product={group.product} acid filled lid />
            </span>
          ))}
          {group.count > DRAWN && (
            <span className="pb-1 pl-2 font-slab text-lg font-bold" aria-hidden="true">
              +{group.count - DRAWN}
            </span>
          )}
        </button>
      </Leave>
      <p className="mt-1 font-semibold">
        {group.count} {jarText(group.size, group.count)}, {dayText(group.canned_at)}
      </p>
      {group.recalled && <p className="font-semibold text-alarm">✕ Recalled: look before opening</p>}
      {group.open != null && <p className="text-sm font-semibold">? Not said yet: {group.open}</p>}
      <p className="text-sm text-muted">
        <Link to={`/batches/${group.batch}/record`} className="underline underline-offset-4">
          {group.code}
        </Link>
        : {batchText(group)}
        {group.product !== "recipe" && `, ${AGENT[group.agent]}`}
      </p>
    </article>
  );
}

function Board({ product, groups }: { product: Product; groups: ShelfGroup[] }) {
  const [shown, setShown] = useState(BATCHES);
  const count = groups.reduce((sum, group) => sum + group.count, 0);
  const hidden = groups.length - shown;
  return (
    <section>
      <h3 className="text-xl">
        {product === "recipe" ? "By a recipe" : PRODUCT[product]}{" "}
        <span className="font-plain text-base font-semibold text-muted">
          {jarsText(count)}, oldest in front
        </span>
      </h3>
      <div className="flex flex-wrap gap-x-6 gap-y-4 pt-2">
        {groups.slice(0, shown).map((group) => (
          <Group key={`${group.code}${group.size}`} group={group} />
        ))}
      </div>
      {hidden > 0 && (
        <div className="mt-3">
          <Touch onPress={() => setShown(shown + MORE)}>
            Show {Math.min(hidden, MORE)} of {hidden} batches more
          </Touch>
        </div>
      )}
    </section>
  );
}

/** The years that stand on the shelf, the newest first. */
function yearsOf(groups: readonly ShelfGroup[]): number[] {
  const years = groups.map((group) => Number(dayOf(group.canned_at).slice(0, 4)));
  return [...new Set(years)].sort((a, b) => b - a);
}

/** What stands there, what to eat first, and what that says of next season. */
export function ShelfStation() {
  const { data: counter } = useQuery(ask.counter());
  const { data: shelf } = useQuery(ask.shelf());
  const [code, setCode] = useState("");
  const [product, setProduct] = useState<Product | "all">("all");
  const [year, setYear] = useState("all");
  const { data: found, error } = useQuery(
    ask.shelf({
      ...(code.trim() === "" ? {} : { code: code.trim() }),
      ...(product === "all" ? {} : { product }),
      ...(year === "all" ? {} : { year: Number(year) }),
    }),
  );
  if (shelf === undefined || found === undefined || counter === undefined)
    return <Pending of={[ask.shelf(), ask.counter()]} />;
  const count = shelf.reduce((sum, group) => sum + group.count, 0);
  const oldest = shelf[0];
  const there = ORDER.filter((item) => shelf.some((group) => group.product === item));
  const years = yearsOf(shelf);
  return (
    <div className="grid gap-3">
      <Plate title="On the shelf">
        <div className="flex flex-wrap items-end justify-between gap-x-8 gap-y-3">
          <Answer value={count} unit={count === 1 ? "jar" : "jars"}>
            {oldest === undefined
              ? "The first jars come here from the towel when their lids hold."
              : `Eat first: ${batchText(oldest)} from ${dayText(oldest.canned_at)}, batch ${oldest.code}.`}
          </Answer>
          {oldest === undefined && <Way to="/towel">To the towel</Way>}
          <Link
            to="/books"
            className="inline-flex min-h-[48px] items-center font-semibold text-link underline decoration-2 underline-offset-4"
          >
            Where it all went today
          </Link>
          {count > 0 && (
            <Fold words="Find a jar">
              <div className="flex flex-wrap items-end gap-4">
                <FindJar />
                <label>
                  <span className="mb-1 block text-sm font-semibold text-muted">Batch code or name</span>
                  <input
                    value={code}
                    onChange={(event) => setCode(event.target.value)}
                    className="min-h-[48px] w-36 rounded-xl border-2 border-edge bg-enamel px-3 font-semibold"
                  />
                </label>
                <Choice<Product | "all">
                  label="Product"
                  value={product}
                  options={[
                    { value: "all", text: "All" },
                    ...there.map((item) => ({
                      value: item,
                      text: item === "recipe" ? "By a recipe" : PRODUCT[item],
                    })),
                  ]}
                  onChoose={setProduct}
                />
                {years.length > 1 && (
                  <Choice
                    label="Year"
                    value={year}
                    options={[
                      { value: "all", text: "All" },
                      ...years.map((item) => ({ value: String(item), text: String(item) })),
                    ]}
                    onChoose={setYear}
                  />
                )}
              </div>
            </Fold>
          )}
        </div>
        <Trouble error={error} />
        <div className="mt-5 grid gap-x-10 gap-y-6 lg:grid-cols-2">
          {ORDER.map((item) => {
            const groups = found.filter((group) => group.product === item);
            return groups.length > 0 && <Board key={item} product={item} groups={groups} />;
          })}
        </div>
        {found.length === 0 && count > 0 && (
          <p className="text-lg text-muted">Nothing like that stands there.</p>
        )}
      </Plate>
      <ColdFood units={counter.kitchen.units} now={counter.now} />
      <NextSeason units={counter.kitchen.units} />
    </div>
  );
}
