import { useState } from "react";
import type { Agent, Claims, LoadView, Units } from "../api/client";
import { WORDS } from "../api/words.generated";
import { Choice } from "./Choice";
import { Note, Trouble } from "./Note";
import { Touch } from "./Touch";
import { changed, HEADSPACE, headspaceWord, isUsual, USUAL, WATER_WARMTH, waterWarmth } from "./claims";
import { headspaceText } from "../writing/format";
import { useClaims } from "./useClaims";

const words = <T extends string>(of: Record<T, string>) =>
  (Object.keys(of) as T[]).map((value) => ({ value, text: of[value].replace(/^./, (c) => c.toUpperCase()) }));

/** Where an acid may come from, by what it is. */
const ACID_ASK: Record<
  Agent,
  { label: string; options: { value: NonNullable<Claims["acid_source"]>; text: string }[] }
> = {
  bottled_lemon_juice: {
    label: "The lemon juice is",
    options: [
      { value: "bottled", text: "From a bottle" },
      { value: "fresh", text: "From fresh lemons" },
      { value: "lime", text: "Lime juice" },
    ],
  },
  vinegar_5pct: {
    label: "The vinegar is",
    options: [
      { value: "bottled", text: "5 % or more" },
      { value: "weak", text: "Weaker, or home-made" },
    ],
  },
  citric_acid: { label: "The citric acid is", options: [{ value: "bottled", text: "Citric acid" }] },
};

/** Where the card differs: each line a choice, nothing chosen before somebody looked. */
function Differs({ load, units, onSay }: { load: LoadView; units: Units; onSay: (claims: Claims) => void }) {
  const { claims } = load;
  const say = (part: Partial<Claims>) => onSay(changed(load.claims, part));
  return (
    <div className="grid gap-3">
      <Choice<Claims["kind"] | "">
        label="The jars"
        value={claims?.kind ?? ""}
        options={words(WORDS.JarKind)}
        onChoose={(kind) => kind !== "" && say({ kind })}
      />
      <Choice<Claims["lid"] | "">
        label="The lids"
        value={claims?.lid ?? ""}
        options={words(WORDS.LidState)}
        onChoose={(lid) => lid !== "" && say({ lid })}
      />
      <Choice
        label="The rims"
        value={claims == null ? "" : claims.nicked ? "nicked" : "whole"}
        options={[
          { value: "whole", text: "No nick" },
          { value: "nicked", text: "One has a nick" },
        ]}
        onChoose={(rim) => say({ nicked: rim === "nicked" })}
      />
      {load.asks_liquid && (
        <Choice
          label="Over the food"
          value={claims == null ? "" : claims.covered ? "covered" : "none"}
          options={[
            { value: "covered", text: "Covered with the liquid" },
            { value: "none", text: "No liquid went in" },
          ]}
          onChoose={(liquid) => say({ covered: liquid === "covered" })}
        />
      )}
      {load.asks_hot && (
        <Choice
          label="The food went in"
          value={claims == null ? "" : claims.packed_raw === true ? "raw" : "hot"}
          options={[
            { value: "hot", text: "Boiling hot" },
            { value: "raw", text: "Raw" },
          ]}
          onChoose={(pack) => say({ packed_raw: pack === "raw" })}
        />
      )}
      {load.asks_skins && (
        <Choice
          label="The tomatoes are"
          value={claims == null ? "" : claims.skins_on === true ? "on" : "off"}
          options={[
            { value: "off", text: "Peeled" },
            { value: "on", text: "With their skins" },
          ]}
          onChoose={(skins) => say({ skins_on: skins === "on" })}
        />
      )}
      {load.asks_acid != null && (
        <Choice
          label={ACID_ASK[load.asks_acid].label}
          value={claims?.acid_source ?? ""}
          options={ACID_ASK[load.asks_acid].options}
          onChoose={(source) => say({ acid_source: source })}
        />
      )}
      <Choice
        label="Headspace, measured"
        value={headspaceWord(claims)}
        options={Object.entries(HEADSPACE).map(([value, inches]) => ({
          value,
          text: headspaceOption(value, inches, units),
        }))}
        onChoose={(word) => say({ headspace_in: HEADSPACE[word] ?? null })}
      />
    </div>
  );
}

/** "Less than ¼ in" */
function headspaceOption(word: string, inches: number | null, units: Units): string {
  if (inches === null) return "As asked";
  if (word === "less") return `Less than ${headspaceText(0.25, units)}`;
  return word === "more" ? `${headspaceText(1, units)} or more` : headspaceText(inches, units);
}

/** What is claimed of a load's jars: confirmed by one touch, or changed where it differs. */
export function LoadCard({ load, units }: { load: LoadView; units: Units }) {
  const [open, setOpen] = useState(false);
  const save = useClaims(load.id);
  const isSeen = load.claims != null;
  return (
    <Note tone={load.claims == null ? "warn" : isUsual(load.claims) ? "good" : "note"}>
      <div data-testid="card" className="grid gap-2">
        {isSeen ? (
          <p className="first-letter:uppercase">{load.claims_words}.</p>
        ) : (
          <p>
            <strong>Look once at all of them:</strong> {load.claims_words}?
          </p>
        )}
        <div className="flex flex-wrap gap-2">
          {!isSeen && (
            <Touch look="main" onPress={() => save.mutate(USUAL)}>
              Yes, all of that
            </Touch>
          )}
          <Touch onPress={() => setOpen(!open)}>{open ? "That is all" : "Something differs"}</Touch>
        </div>
        {open && <Differs load={load} units={units} onSay={(claims) => save.mutate(claims)} />}
        <Trouble error={save.error} />
      </div>
    </Note>
  );
}

/** How warm the canner's water is before the jars go in, once somebody has looked at them. */
export function WaterWarmth({ load }: { load: LoadView }) {
  const save = useClaims(load.id);
  if (load.claims == null) return null;
  return (
    <>
      <Choice
        label="The water in the canner is"
        value={waterWarmth(load.claims)}
        options={Object.entries(WATER_WARMTH).map(([value, { text }]) => ({ value, text }))}
        onChoose={(word) =>
          save.mutate(changed(load.claims, { water_c: WATER_WARMTH[word]?.celsius ?? null }))
        }
      />
      <Trouble error={save.error} />
    </>
  );
}
