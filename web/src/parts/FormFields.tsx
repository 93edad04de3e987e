import { useId } from "react";
import { useController, type Control, type FieldPath, type FieldValues } from "react-hook-form";
import { Choice } from "./Choice";
import { boundsOf, type Bound } from "./fields";
import { NumberField } from "./NumberField";
import { Pick } from "./Pick";
import { TextField } from "./TextField";
import { Tick } from "./Tick";
import { plain, type Scale } from "../writing/units";

interface Of<In extends FieldValues, Out> {
  control: Control<In, unknown, Out>;
  name: FieldPath<In>;
  label: string;
}

/** A number of a form. */
export function NumberOf<In extends FieldValues, Out>({
  control,
  name,
  label,
  bound,
  scale = plain(),
  step,
  wide = false,
  quiet = false,
}: Of<In, Out> & { bound: Bound; scale?: Scale; step?: number; wide?: boolean; quiet?: boolean }) {
  const { field, fieldState } = useController({ control, name });
  const { least, most } = boundsOf(bound, scale);
  return (
    <NumberField
      label={label}
      typed={field.value}
      onType={field.onChange}
      unit={scale.unit}
      {...(step !== undefined && { step })}
      least={least}
      most={most}
      error={fieldState.error?.message}
      wide={wide}
      quiet={quiet}
    />
  );
}

/** A few words of a form. */
export function TextOf<In extends FieldValues, Out>({
  control,
  name,
  label,
  example,
}: Of<In, Out> & { example?: string }) {
  const { field, fieldState } = useController({ control, name });
  return (
    <TextField
      label={label}
      typed={field.value}
      {...(example !== undefined && { example })}
      error={fieldState.error?.message}
      onType={field.onChange}
    />
  );
}

/** One of a few, all in sight, in a form. */
export function ChoiceOf<In extends FieldValues, Out>({
  control,
  name,
  label,
  options,
  fallback = "",
}: Of<In, Out> & { options: readonly { value: string; text: string }[]; fallback?: string }) {
  const { field, fieldState } = useController({ control, name });
  const value = (field.value as string) || fallback;
  return (
    <Choice
      label={label}
      value={value}
      options={options}
      error={fieldState.error?.message}
      onChoose={field.onChange}
    />
  );
}

/** One of many, in a form. */
export function PickOf<In extends FieldValues, Out>({
  control,
  name,
  label,
  options,
}: Of<In, Out> & { options: readonly { value: string; text: string }[] }) {
  const { field } = useController({ control, name });
  return <Pick label={label} value={field.value} options={options} onChoose={field.onChange} />;
}

/** Yes or no, in a form. */
export function TickOf<In extends FieldValues, Out>({ control, name, label }: Of<In, Out>) {
  const { field } = useController({ control, name });
  return <Tick label={label} on={field.value} onTick={field.onChange} />;
}

/** A day, typed or picked from the browser's calendar. */
export function DayOf<In extends FieldValues, Out>({ control, name, label }: Of<In, Out>) {
  const { field, fieldState } = useController({ control, name });
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-sm font-semibold text-muted">
        {label}
      </label>
      <input
        id={id}
        type="date"
        value={field.value}
        onChange={field.onChange}
        aria-invalid={fieldState.error !== undefined}
        className="min-h-[52px] rounded-xl border-2 border-edge bg-enamel px-3 font-semibold aria-invalid:border-tomato"
      />
      {fieldState.error !== undefined && (
        <p className="mt-1 text-sm font-semibold text-alarm">{fieldState.error.message}</p>
      )}
    </div>
  );
}
