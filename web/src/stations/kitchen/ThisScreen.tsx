import { useSyncExternalStore } from "react";
import { setDevice, useDevice } from "../../device/device";
import { hasVoice, onVoices, sayAloud } from "../../device/voice";
import { Choice } from "../../parts/Choice";
import { Plate } from "../../parts/Plate";
import { Tick } from "../../parts/Tick";

/** How this one screen looks, speaks and is worked; the household's others stay as they are. */
export function ThisScreen() {
  const device = useDevice();
  const speaks = useSyncExternalStore(onVoices, hasVoice);
  return (
    <Plate title="This screen">
      <div className="grid gap-4">
        <Choice
          label="Look"
          value={device.look}
          options={[
            { value: "light", text: "Light" },
            { value: "dark", text: "Dark, for a dim kitchen" },
          ]}
          onChoose={(look) => setDevice({ look })}
        />
        <Choice
          label="Figures"
          value={device.figures}
          options={[
            { value: "usual", text: "Usual" },
            { value: "large", text: "Large, for two metres" },
          ]}
          onChoose={(figures) => setDevice({ figures })}
        />
        <div>
          <Tick
            label="Say alarms aloud"
            on={device.voice}
            onTick={(voice) => {
              setDevice({ voice });
              if (voice) sayAloud("Alarms are said aloud");
            }}
          />
          {device.voice && !speaks && (
            <p className="text-muted">This browser has no voice of its own; it stays silent.</p>
          )}
          <Tick
            label="Letters on the keyboard work the touches"
            on={device.keys}
            onTick={(keys) => setDevice({ keys })}
          />
          <Tick
            label="Practise with simulated devices"
            on={device.practice}
            onTick={(practice) => setDevice({ practice })}
          />
          <p className="text-muted">
            A simulated probe, scale, refractometer and pH meter stand at the stations, and say that they are
            simulated.
          </p>
          <p className="text-muted">A “?” on the keyboard shows the letters of the page.</p>
        </div>
      </div>
    </Plate>
  );
}
