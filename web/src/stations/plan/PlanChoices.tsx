import type {
  Agent,
  JarSize,
  Lot,
  Medium,
  Pack,
  PlanAnswer,
  PlanRequest,
  Product,
  Thickness,
  Units,
} from "../../api/client";
import { Choice, optionsOf } from "../../parts/Choice";
import { ContentsPicker } from "../../parts/ContentsPicker";
import { JAR_SIZES, jarText, MEDIUM, PACK, PRODUCT } from "../../writing/format";
import { LotPicker } from "./LotPicker";
import { UnknownJar } from "./UnknownJar";
import { packsText, startWith } from "./model";
import { Pick } from "../../parts/Pick";
import { Tick } from "../../parts/Tick";

const PRODUCTS: readonly Product[] = ["whole", "crushed", "juice", "vegetable_juice", "sauce", "paste"];
const MEDIA: readonly Medium[] = ["water", "juice", "none"];
const PACKS: readonly Pack[] = ["raw", "hot"];
const THICK: Record<Thickness, string> = {
  thin: "Thin: by a third, two thirds are left",
  thick: "Thick, by half",
};
const AGENTS: readonly Agent[] = ["bottled_lemon_juice", "citric_acid", "vinegar_5pct"];
const SPOONS: Record<Agent, string> = {
  bottled_lemon_juice: "Lemon, bottled",
  citric_acid: "Citric acid",
  vinegar_5pct: "Vinegar 5 %",
};
/** Jars that a household reaches for; the others are a touch further. */
const USUAL_JARS: Record<Units, readonly JarSize[]> = {
  us: ["half_pint", "pint", "quart"],
  metric: ["half_litre", "litre", "pint", "quart"],
};
const JAR_WORDS = Object.fromEntries(JAR_SIZES.map((jar) => [jar, jarText(jar)])) as Record<JarSize, string>;

export function PlanChoices({
  wish,
  packs,
  lots,
  drawn,
  units,
  onWish,
  onLots,
}: {
  wish: PlanRequest;
  /** What other packs of the same would take. */
  packs: PlanAnswer["packs"];
  lots: Lot[];
  drawn: number[];
  units: Units;
  onWish: (next: Partial<PlanRequest>) => void;
  onLots: (ids: number[]) => void;
}) {
  const usual = USUAL_JARS[units];
  const inSight = usual.includes(wish.jar) ? usual : [...usual, wish.jar];
  return (
    <div className="grid gap-3">
      <Choice
        label="Product"
        value={wish.product}
        options={optionsOf(PRODUCTS, { ...PRODUCT, vegetable_juice: "Veg juice" })}
        onChoose={(product) => onWish(startWith(product, wish.jar))}
      />
      <div className="flex flex-wrap gap-x-3 gap-y-3 empty:hidden">
        {wish.product === "whole" && wish.medium != null && (
          <Choice
            label="Packed"
            value={wish.medium}
            options={optionsOf(MEDIA, MEDIUM)}
            onChoose={(medium) => onWish({ medium })}
          />
        )}
        <Choice
          label={wish.product === "whole" ? "Pack" : "Pack: cooked, and boiling hot into the jar"}
          value={wish.pack}
          options={optionsOf(PACKS, PACK)}
          onChoose={(pack) => onWish({ pack })}
        />
        {wish.thickness != null && (
          <Choice
            label="Reduced"
            value={wish.thickness}
            options={optionsOf(["thin", "thick"], THICK)}
            onChoose={(thickness) => onWish({ thickness })}
          />
        )}
      </div>
      {packs.length > 1 && <p className="-mt-1 text-muted">{packsText(packs)}</p>}
      <div className="flex flex-wrap items-end gap-3">
        <Choice
          label="Jar"
          value={wish.jar}
          options={optionsOf(inSight, JAR_WORDS)}
          onChoose={(jar) => onWish({ jar })}
        />
        <div className="w-44">
          <Pick
            label="Or another jar"
            value=""
            placeholder="Other sizes"
            options={optionsOf(
              JAR_SIZES.filter((jar) => !inSight.includes(jar)),
              JAR_WORDS,
            )}
            onChoose={(jar) => jar !== "" && onWish({ jar })}
          />
        </div>
      </div>
      <UnknownJar units={units} onJar={(jar) => onWish({ jar })} />
      <Choice
        label="Acid in every jar"
        value={wish.agent}
        options={optionsOf(AGENTS, SPOONS)}
        onChoose={(agent) => onWish({ agent })}
      />
      <ContentsPicker
        value={wish.additions ?? null}
        onSay={(additions) => onWish({ additions, jars: wish.jars ?? null })}
      />
      <LotPicker lots={lots} chosen={drawn} units={units} onChoose={onLots} />
      <Tick
        label="Salt in the jars, for taste"
        on={wish.salt ?? false}
        onTick={(on) => onWish({ salt: on, jars: wish.jars ?? null })}
      />
    </div>
  );
}
