import { useQuery } from "@tanstack/react-query";
import type { Product, ShelfGroup } from "../../api/client";
import { ask } from "../../api/queries";
import { AGENT, batchText, dayText, jarText, PRODUCT } from "../../parts/format";
import { JarPicture } from "../../parts/JarPicture";
import { Answer, Plate } from "../../parts/Plate";

const ORDER: readonly Product[] = ["whole", "crushed", "sauce", "paste", "juice", "vegetable_juice"];
/** Jars drawn of one batch before the rest is a number. */
const DRAWN = 7;

function Board({ product, groups }: { product: Product; groups: ShelfGroup[] }) {
  const count = groups.reduce((sum, group) => sum + group.count, 0);
  return (
    <section>
      <h3 className="text-xl">
        {PRODUCT[product]}{" "}
        <span className="font-plain text-base font-semibold text-muted">{count} jars, oldest in front</span>
      </h3>
      <div className="flex flex-wrap gap-x-6 gap-y-4 pt-2">
        {groups.map((group) => (
          <article key={`${group.code}${group.size}`} data-batch={group.code} className="min-w-0">
            <div className="flex items-end border-b-[7px] border-[#a87b47] px-1">
              {Array.from({ length: Math.min(group.count, DRAWN) }, (_, i) => (
                <span key={i} className="-mx-0.5 h-16 w-10">
                  <JarPicture size={group.size} product={group.product} acid filled lid />
                </span>
              ))}
              {group.count > DRAWN && (
                <span className="pb-1 pl-2 font-slab text-lg font-bold">+{group.count - DRAWN}</span>
              )}
            </div>
            <p className="mt-1 font-semibold">
              {group.count} {jarText(group.size, group.count)}, {dayText(group.canned_at)}
            </p>
            <p className="text-sm text-muted">
              {group.code}: {batchText(group)}, {AGENT[group.agent]}
            </p>
          </article>
        ))}
      </div>
    </section>
  );
}

export function ShelfStation() {
  const { data: shelf } = useQuery(ask.shelf());
  if (shelf === undefined) return null;
  const count = shelf.reduce((sum, group) => sum + group.count, 0);
  const oldest = shelf[0];
  return (
    <Plate title="On the shelf">
      <Answer value={count} unit={count === 1 ? "jar" : "jars"}>
        {oldest === undefined
          ? "The first jars come here from the towel when their lids hold."
          : `Eat first: ${PRODUCT[oldest.product].toLowerCase()} from ${dayText(oldest.canned_at)}, batch ${oldest.code}.`}
      </Answer>
      <div className="mt-5 grid gap-x-10 gap-y-6 lg:grid-cols-2">
        {ORDER.map((product) => {
          const groups = shelf.filter((group) => group.product === product);
          return groups.length > 0 && <Board key={product} product={product} groups={groups} />;
        })}
      </div>
    </Plate>
  );
}
