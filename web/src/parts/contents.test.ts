import { describe, expect, test } from "vitest";
import { addedOf, contentsText, groupOf, measuresOf, typedOf } from "./contents";
import { INGREDIENT } from "../writing/format";

describe("what else goes in", () => {
  test("is not said while nothing was chosen or an amount is missing", () => {
    expect(addedOf({})).toBeNull();
    expect(addedOf({ onion: "" })).toBeNull();
    expect(addedOf({ onion: "much" })).toBeNull();
    expect(addedOf({ onion: "1", pepper: "" })).toBeNull();
  });

  test("is cups of it, leaves of basil, and no amount of what is free", () => {
    expect(addedOf({ onion: "1.5", basil_leaf: "7", dried_herb: "" })).toEqual([
      { what: "onion", cups: 1.5 },
      { what: "basil_leaf", leaves: 7 },
      { what: "dried_herb" },
    ]);
  });

  test("is called by its name where it has no word, and never nothing", () => {
    expect(addedOf({ other: " " })).toBeNull();
    expect(addedOf({ other: " cocoa ", corn: "" })).toEqual([
      { what: "other", name: "cocoa" },
      { what: "corn" },
    ]);
    expect(contentsText([{ what: "other", name: "cocoa" }], INGREDIENT)).toBe("cocoa");
  });

  test("is weighed or counted where that is what there is", () => {
    const said = addedOf({ onion: "2", pepper: "300" }, { onion: "piece", pepper: "g" });
    expect(said).toEqual([
      { what: "onion", amount: 2, unit: "piece" },
      { what: "pepper", amount: 300, unit: "g" },
    ]);
    expect(typedOf(said)).toEqual({ onion: "2", pepper: "300" });
    expect(measuresOf(said)).toEqual({ onion: "piece", pepper: "g" });
    expect(contentsText(said ?? [], INGREDIENT)).toBe("2 onion, 300 g of pepper");
  });

  test("opens where it was left", () => {
    expect(groupOf(null)).toBe("");
    expect(groupOf([])).toBe("nothing");
    expect(groupOf([{ what: "celery", cups: 1 }])).toBe("vegetables");
    expect(groupOf([{ what: "salt" }])).toBe("else");
    expect(typedOf([{ what: "other", name: "cocoa" }])).toEqual({ other: "cocoa" });
    expect(typedOf([{ what: "celery", cups: 1 }, { what: "dried_herb" }])).toEqual({
      celery: "1",
      dried_herb: "",
    });
    expect(typedOf(null)).toEqual({});
  });

  test("is said in words", () => {
    const said = contentsText(
      [
        { what: "onion", cups: 1 },
        { what: "pepper", cups: 2.5 },
        { what: "basil_leaf", leaves: 1 },
        { what: "sugar" },
      ],
      INGREDIENT,
    );
    expect(said).toBe("1 cup of onion, 2.5 cups of pepper, 1 basil leaf, sugar");
  });
});
