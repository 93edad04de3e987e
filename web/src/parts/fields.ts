import { valibotResolver } from "@hookform/resolvers/valibot";
import { useEffect } from "react";
import {
  useForm,
  type DefaultValues,
  type FieldValues,
  type Path,
  type UseFormReturn,
} from "react-hook-form";
import * as v from "valibot";
import { BOUNDS } from "../api/bounds.generated";
import { Refused } from "../api/client";
import { notANumber, parseNumber, typedOf } from "../writing/number";
import { sentence } from "./sentence";
import { plain, type Scale } from "../writing/units";

export type Bound = keyof typeof BOUNDS;

/** What the API accepts for a number, in the unit that is typed. */
export function boundsOf(bound: Bound, scale: Scale = plain()) {
  const ends = [scale.fromApi(BOUNDS[bound].least), scale.fromApi(BOUNDS[bound].most)];
  return { least: Math.min(...ends), most: Math.max(...ends) };
}

/** Yes, no, or nobody said. */
export const saidYesNo = v.pipe(
  v.string(),
  v.transform((word) => (word === "" ? null : word === "yes")),
);

/** The two touches for it. */
export const YES_NO = [
  { value: "yes", text: "Yes" },
  { value: "no", text: "No" },
] as const;

/** A number as typed, checked against the API's own bounds and sent in its unit. */
export function number(bound: Bound, scale: Scale = plain()) {
  return v.pipe(
    v.string(),
    v.rawTransform(({ dataset, addIssue, NEVER }) => {
      const typed = parseNumber(dataset.value, scale.unit);
      if (typed === null) {
        addIssue({ message: notANumber(dataset.value, scale.unit) });
        return NEVER;
      }
      const { least, most } = boundsOf(bound, scale);
      if (typed < least || typed > most) {
        const unit = scale.unit === "" ? "" : ` ${scale.unit}`;
        addIssue({ message: `Give ${typedOf(least)} to ${typedOf(most)}${unit}` });
        return NEVER;
      }
      return scale.toApi(typed);
    }),
  );
}

/** A number that may be left out. */
export function optionalNumber(bound: Bound, scale: Scale = plain()) {
  return v.union([
    v.pipe(
      v.literal(""),
      v.transform(() => undefined),
    ),
    number(bound, scale),
  ]);
}

/** A name of 1 to 80 letters. */
export const named = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, "Give it a name"),
  v.maxLength(80, "A name has at most 80 letters"),
);

/** A form whose fields hold what was typed, and whose schema says what is sent. */
export function useFields<In extends FieldValues, Out>(
  schema: v.GenericSchema<In, Out>,
  defaults: DefaultValues<In>,
) {
  return useForm<In, unknown, Out>({
    resolver: valibotResolver(schema),
    defaultValues: defaults,
    mode: "onTouched",
  });
}

/** The field of a form that a refusal is about; `null` when it is about none of them. */
export function fieldOf<Name extends string>(error: Error | null, fields: Record<string, Name>): Name | null {
  if (!(error instanceof Refused) || error.problem.field == null) return null;
  return fields[error.problem.field] ?? null;
}

/**
 * Draws what the server refused beside the field it is about. `fields` says which of the API's fields stands in which
 * of the form's. Answers what is left to be drawn elsewhere.
 */
export function useRefusal<In extends FieldValues, Out>(
  form: UseFormReturn<In, unknown, Out>,
  error: Error | null,
  fields: Record<string, Path<In>>,
): Error | null {
  const field = fieldOf(error, fields);
  const { setError } = form;
  useEffect(() => {
    if (field !== null && error !== null) setError(field, { message: sentence(error.message) });
  }, [setError, field, error]);
  return field === null ? error : null;
}
