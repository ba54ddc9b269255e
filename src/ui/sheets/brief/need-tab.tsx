"use client";
import { Plus } from "lucide-react";
import type { Brief, BriefDevice, SiteDto } from "@/contract";
import { BITS_PER_PIXEL, type DeviceKind, deviceDemand } from "@/core/infra";
import { Choice, Field } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { RemoveRow } from "../../controls/rows";
import { UnitField } from "../../controls/unit-field";
import { figure } from "../../wording/numbers";

const KIND: Readonly<Record<DeviceKind, string>> = {
  camera: "Camera",
  "access-point": "Access point",
  phone: "Phone",
  control: "Control",
  internet: "Internet",
  recorder: "Recorder",
  other: "Other",
};
const SIZES = [
  [1280, 720],
  [1920, 1080],
  [2560, 1440],
  [3840, 2160],
] as const;

const newDevice = (siteId: string, kind: DeviceKind): BriefDevice => ({
  id: crypto.randomUUID().slice(0, 8),
  siteId,
  name: "",
  kind,
  count: 1,
  widthPx: 1920,
  heightPx: 1080,
  framesPerS: 15,
  codec: "h264",
  scene: "usual",
  users: kind === "access-point" ? 4 : 0,
  downMbps: null,
  upMbps: null,
});

const DeviceRow = ({
  d,
  sites,
  set,
  remove,
}: {
  d: BriefDevice;
  sites: readonly SiteDto[];
  set: (fields: Partial<BriefDevice>) => void;
  remove: () => void;
}) => {
  const { peak } = deviceDemand(d);
  const typed = ["internet", "recorder", "other"].includes(d.kind);
  return (
    <li className="fields-row grid grid-cols-[0.95fr_0.9fr_46px_1.9fr_1fr_1fr_28px] items-start gap-x-3 border-b border-rule py-2">
      <Choice label="At" value={d.siteId} onChange={(e) => set({ siteId: e.target.value })}>
        {sites.map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}
          </option>
        ))}
      </Choice>
      <Choice label="What" value={d.kind} onChange={(e) => set({ kind: e.target.value as DeviceKind })}>
        {Object.entries(KIND).map(([kind, name]) => (
          <option key={kind} value={kind}>
            {name}
          </option>
        ))}
      </Choice>
      <NumberField label="Count" whole value={d.count} least={1} most={1000} onChange={(v) => v !== null && set({ count: v })} />
      <div>
        {d.kind === "camera" && (
          <div className="grid grid-cols-2 gap-x-2">
            <Choice
              label="Picture"
              value={`${d.widthPx}x${d.heightPx}`}
              onChange={(e) => {
                const [w, h] = e.target.value.split("x").map(Number) as [number, number];
                set({ widthPx: w, heightPx: h });
              }}
            >
              {[...SIZES, ...(SIZES.some(([w, h]) => w === d.widthPx && h === d.heightPx) ? [] : [[d.widthPx, d.heightPx] as const])].map(
                ([w, h]) => (
                  <option key={`${w}x${h}`} value={`${w}x${h}`}>
                    {w}×{h}
                  </option>
                ),
              )}
            </Choice>
            <NumberField
              label="Frames/s"
              value={d.framesPerS}
              least={0.1}
              most={240}
              onChange={(v) => v !== null && set({ framesPerS: v })}
            />
            <Choice label="Codec" value={d.codec} onChange={(e) => set({ codec: e.target.value as BriefDevice["codec"] })}>
              <option value="h264">H.264</option>
              <option value="h265">H.265</option>
              <option value="mjpeg">MJPEG</option>
            </Choice>
            <Choice label="Scene" value={d.scene} onChange={(e) => set({ scene: e.target.value as BriefDevice["scene"] })}>
              <option value="quiet">quiet</option>
              <option value="usual">usual</option>
              <option value="busy">busy</option>
            </Choice>
          </div>
        )}
        {d.kind === "access-point" && (
          <NumberField
            label="Users on it"
            whole
            value={d.users}
            least={0}
            most={10_000}
            onChange={(v) => v !== null && set({ users: v })}
          />
        )}
        {d.kind !== "camera" && d.kind !== "access-point" && (
          <Field label="Note" value={d.name} maxLength={80} onChange={(e) => set({ name: e.target.value })} />
        )}
      </div>
      <UnitField
        label={typed ? "Down, each" : "Down, if read off"}
        quantity="rate"
        value={d.downMbps}
        onChange={(v) => set({ downMbps: v })}
        usual={{ least: 0.02, most: 500 }}
        most={100_000}
      />
      <UnitField
        label={typed ? "Up, each" : "Up, if read off"}
        quantity="rate"
        value={d.upMbps}
        onChange={(v) => set({ upMbps: v })}
        usual={d.kind === "camera" ? { least: 0.3, most: 40 } : { least: 0.02, most: 500 }}
        most={100_000}
      />
      <RemoveRow label={`Take ${KIND[d.kind].toLowerCase()} away`} onClick={remove} />
      <p className="cap col-span-7 m-0">
        {d.count} together at the worst moment: {figure(peak.toFarMbps, 1)} Mbps down to it, {figure(peak.toNearMbps, 1)} Mbps up from it
        {d.kind === "camera" && d.upMbps === null
          ? `, at ${BITS_PER_PIXEL[d.codec]} bits a pixel; read the rate off the camera to be sure`
          : ""}
        .
      </p>
    </li>
  );
};

/** What must work at each far end, and what feeds the near one. */
export const NeedTab = ({
  doc,
  sites,
  farId,
  change,
}: {
  doc: Brief;
  sites: readonly SiteDto[];
  /** The far end that a new row is put at first. */
  farId: string | undefined;
  change: (fields: Partial<Brief>) => void;
}) => {
  const set = (id: string, fields: Partial<BriefDevice>): void =>
    change({ devices: doc.devices.map((d) => (d.id === id ? { ...d, ...fields } : d)) });
  const place = doc.devices[doc.devices.length - 1]?.siteId ?? farId ?? sites[sites.length - 1]?.id;
  return (
    <div className="grid gap-5">
      <div className="fields-row grid grid-cols-3 gap-x-5 gap-y-2">
        <Field label="Customer" value={doc.customer} maxLength={120} onChange={(e) => change({ customer: e.target.value })} />
        <Field label="How to reach them" value={doc.contact} maxLength={200} onChange={(e) => change({ contact: e.target.value })} />
        <Choice label="Recordings go to" value={doc.recorder} onChange={(e) => change({ recorder: e.target.value as Brief["recorder"] })}>
          <option value="near">a recorder at the near end: streams cross the link</option>
          <option value="far">a recorder beside the cameras: little crosses</option>
          <option value="none">nowhere</option>
        </Choice>
        <label className="field col-span-3">
          <span>What it is for, in the customer's words</span>
          <textarea
            rows={2}
            maxLength={2000}
            className="border border-rule bg-paper p-1.5"
            value={doc.purpose}
            onChange={(e) => change({ purpose: e.target.value })}
          />
        </label>
      </div>
      <section aria-label="Devices at the far ends">
        <h2 className="m-0 border-b border-ink pb-1 text-part font-bold">What must work at the far ends</h2>
        <ol className="m-0 list-none p-0">
          {doc.devices.map((d) => (
            <DeviceRow
              key={d.id}
              d={d}
              sites={sites}
              set={(f) => set(d.id, f)}
              remove={() => change({ devices: doc.devices.filter((x) => x.id !== d.id) })}
            />
          ))}
        </ol>
        {place === undefined ? (
          <p className="m-0 mt-2">Place the sites on the Ground sheet first; then say what stands at each.</p>
        ) : (
          <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
            <Plus size={16} aria-hidden="true" />
            {Object.entries(KIND).map(([kind, name]) => (
              <button
                key={kind}
                type="button"
                className="press min-h-6"
                onClick={() => change({ devices: [...doc.devices, newDevice(place, kind as DeviceKind)] })}
              >
                {name}
              </button>
            ))}
          </div>
        )}
      </section>
      <section aria-label="The feed">
        <h2 className="m-0 border-b border-ink pb-1 text-part font-bold">What feeds the near end</h2>
        <div className="fields-row grid grid-cols-4 gap-x-5 pt-2">
          <Field
            label="Line or network"
            value={doc.feed.name}
            maxLength={120}
            placeholder="fibre of the office"
            onChange={(e) => change({ feed: { ...doc.feed, name: e.target.value } })}
          />
          <UnitField
            label="Subscribed down"
            quantity="rate"
            value={doc.feed.downMbps}
            onChange={(v) => change({ feed: { ...doc.feed, downMbps: v } })}
            usual={{ least: 1, most: 10_000 }}
            most={100_000}
          />
          <UnitField
            label="Subscribed up"
            quantity="rate"
            value={doc.feed.upMbps}
            onChange={(v) => change({ feed: { ...doc.feed, upMbps: v } })}
            usual={{ least: 0.3, most: 10_000 }}
            most={100_000}
          />
          <NumberField
            label="Free ports"
            whole
            optional
            value={doc.feed.freePorts}
            least={0}
            most={1000}
            onChange={(v) => change({ feed: { ...doc.feed, freePorts: v } })}
          />
        </div>
      </section>
    </div>
  );
};
