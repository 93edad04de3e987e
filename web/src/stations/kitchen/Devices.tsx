import { useQuery } from "@tanstack/react-query";
import { useState, useSyncExternalStore } from "react";
import { api, take } from "../../api/client";
import { ask, useChange } from "../../queries/queries";
import { useKitchenNow } from "../../base/clock";
import { useSay } from "../../parts/notices";
import { offline } from "../../offline/register";
import { clockText, dayText } from "../../writing/format";
import { Note, Trouble } from "../../parts/Note";
import { Plate } from "../../parts/Plate";
import { TextField } from "../../parts/TextField";
import { Touch } from "../../parts/Touch";

function Code({ of, svg }: { of: string; svg: string }) {
  return (
    <img
      src={`data:image/svg+xml;utf8,${encodeURIComponent(svg)}`}
      alt={`QR code of ${of}`}
      className="size-52 rounded-xl border-2 border-line"
    />
  );
}

/** A code for one device, to be scanned from this screen. */
function LetOneIn() {
  const now = useKitchenNow();
  const make = useChange(() => take(api.POST("/api/network/codes")));
  const made = make.data;
  return (
    <div className="grid gap-3">
      <div>
        <Touch look="main" onPress={() => make.mutate(undefined)}>
          Let a device in
        </Touch>
      </div>
      <Trouble error={make.error} />
      {made !== undefined && made.until > now && (
        <div className="flex flex-wrap items-center gap-5" data-testid="pairing">
          <Code of={made.url} svg={made.qr} />
          <div>
            <p className="text-lg">Scan this with the device, or type there</p>
            <p className="font-slab text-4xl font-bold tracking-wide" data-testid="code">
              {made.code}
            </p>
            <p className="text-muted">It lets one device in, until {clockText(made.until)}.</p>
          </div>
        </div>
      )}
      {made !== undefined && made.until <= now && <p className="text-lg">The code is over; make another.</p>}
    </div>
  );
}

function Passcode({ isSet }: { isSet: boolean }) {
  const say = useSay();
  const [typed, setTyped] = useState("");
  const set = useChange(
    (passcode: string) => take(api.PUT("/api/network/passcode", { body: { passcode } })),
    () => {
      setTyped("");
      say("The passcode is set");
    },
  );
  return (
    <form
      className="mt-4 flex flex-wrap items-end gap-3 border-t-2 border-line pt-4"
      onSubmit={(event) => {
        event.preventDefault();
        set.mutate(typed);
      }}
    >
      <TextField
        label={isSet ? "Another passcode" : "A passcode, four words are easy to keep"}
        secret
        typed={typed}
        error={set.error?.message}
        onType={setTyped}
      />
      <Touch submit disabled={typed === ""}>
        Set it
      </Touch>
    </form>
  );
}

/** What this device cannot do as long as it does not trust the kitchen. */
function Untrusted({ help }: { help: string | null | undefined }) {
  const state = useSyncExternalStore(offline.subscribe, offline.now);
  if (state !== "not trusted" || help == null) return null;
  return (
    <Note tone="warn">
      This device does not trust the kitchen’s certificate yet. Everything works but two things: opening the
      kitchen while its computer is off, and ringing while the page is in the background.{" "}
      <a href={help} className="font-semibold underline underline-offset-4">
        How it learns to, {help}
      </a>
    </Note>
  );
}

/** Phones and tablets at the stove: where they find the kitchen, and who is let in. */
export function Devices() {
  const say = useSay();
  const { data } = useQuery(ask.network());
  const signOut = useChange((id: number) =>
    take(api.DELETE("/api/devices/{id}", { params: { path: { id } } })),
  );
  if (data === undefined) return null;
  return (
    <Plate title="Devices">
      <Untrusted help={data.help_url} />
      {data.url == null ? (
        <p className="text-lg">
          Only this machine opens the kitchen. For a phone at the stove, set a passcode, stop Bodega and start
          it with <code>bodega serve --network</code>.
        </p>
      ) : (
        <div className="grid gap-4">
          <div className="flex flex-wrap items-center gap-5">
            {data.qr != null && <Code of={data.url} svg={data.qr} />}
            <div className="min-w-0">
              <p className="text-lg">In the home network the kitchen is open at</p>
              <p className="font-slab text-2xl font-bold break-all">{data.url}</p>
              <p className="mt-2 text-muted">
                A device that is to trust it opens <span className="break-all">{data.help_url}</span> first.
              </p>
            </div>
          </div>
          <LetOneIn />
        </div>
      )}
      <Trouble error={signOut.error} />
      {data.devices.length > 0 && (
        <ul className="mt-4 grid gap-2">
          {data.devices.map((device) => (
            <li
              key={device.id}
              data-device={device.name}
              className="flex flex-wrap items-center justify-between gap-3 border-t-2 border-line pt-2"
            >
              <span>
                <strong className="text-lg">{device.name}</strong>
                {device.id === data.this_device && (
                  <span className="font-semibold text-fine"> · this one</span>
                )}
                <br />
                <span className="text-muted">
                  seen {dayText(device.seen_at)}, {clockText(device.seen_at)}
                </span>
              </span>
              <Touch
                onPress={() =>
                  signOut.mutate(device.id, { onSuccess: () => say(`${device.name} is signed out`) })
                }
              >
                Sign out
              </Touch>
            </li>
          ))}
        </ul>
      )}
      {data.fingerprint != null && (
        <p className="mt-4 text-sm text-muted">
          SHA-256 of the certificate: <span className="break-all">{data.fingerprint}</span>
        </p>
      )}
      {data.is_this_machine && <Passcode isSet={data.has_passcode} />}
    </Plate>
  );
}
