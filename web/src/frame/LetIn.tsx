import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import * as v from "valibot";
import { api, take } from "../api/client";
import { useChange } from "../queries/queries";
import { TextOf } from "../parts/FormFields";
import { named, useFields } from "../parts/fields";
import { Trouble } from "../parts/Note";
import { Plate } from "../parts/Plate";
import { TextField } from "../parts/TextField";
import { Touch } from "../parts/Touch";
import { door } from "../connection/door";
import { guessName } from "../connection/guess";

/** A device that comes for the first time: by the code that it scanned, or by the passcode. */
export function LetIn() {
  const client = useQueryClient();
  const scanned = window.location.hash.slice(1);
  const [code, setCode] = useState(scanned);
  const [passcode, setPasscode] = useState("");
  const { control, handleSubmit } = useFields(v.object({ name: named }), {
    name: guessName(navigator.userAgent),
  });
  const enter = useChange(
    (name: string) =>
      take(
        api.POST("/api/devices", {
          body: { name, ...(code.trim() === "" ? { passcode } : { code: code.trim() }) },
        }),
      ),
    () => {
      // The code stands in no history.
      window.history.replaceState(null, "", "/");
      door.heard(200);
      void client.resetQueries();
    },
  );
  return (
    <main className="mx-auto max-w-[640px] p-4">
      <h1 className="my-4 flex items-center gap-2 text-3xl text-link">
        <img src="/jar.svg" alt="" className="size-8" />
        Bodega
      </h1>
      <Plate title="This device is not let in yet">
        <form
          className="grid gap-4"
          onSubmit={(event) => void handleSubmit((typed) => enter.mutate(typed.name))(event)}
        >
          {scanned === "" && (
            <p className="text-lg">
              On a screen that shows the kitchen, touch Kitchen, then “Let a device in”, and scan the code
              there.
            </p>
          )}
          <TextOf control={control} name="name" label="Name of this device" />
          <TextField label="Code" typed={code} example="K7MQ-2XWD" onType={setCode} />
          {code.trim() === "" && (
            <TextField label="Or the passcode" secret typed={passcode} onType={setPasscode} />
          )}
          <Trouble error={enter.error} />
          <Touch submit big look="main" disabled={enter.isPending || (code.trim() === "" && passcode === "")}>
            Let this device in
          </Touch>
        </form>
      </Plate>
    </main>
  );
}
