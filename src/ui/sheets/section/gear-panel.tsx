"use client";
import Link from "next/link";
import { useState } from "react";
import type { DesignFields, HardwareDto, SiteDto } from "@/contract";
import { DEFAULT_YEAR_PERCENT, LEAST_POWER_DBM, LEAST_YEAR_PERCENT, MOST_POWER_DBM, MOST_YEAR_PERCENT } from "@/core/link";
import { BARRIER_MATERIALS } from "@/core/propagation";
import { accessOf, frameRatios, poweredPort } from "@/core/radio";
import { Choice } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { figure } from "../../wording/numbers";
import { fitChannel } from "./gear-rules";
import { permissionLine } from "./permission-words";

const BANDS = ["2.4", "5", "6", "24", "60", "80"];

type Change = (fields: Partial<DesignFields>) => void;

/** Which of a site's mounting points an end stands at; nothing while the site has only its one mount. */
const MountChoice = ({ end, site, design, change }: { end: "near" | "far"; site: SiteDto; design: DesignFields; change: Change }) => {
  if (site.mountingPoints.length === 0) return null;
  return (
    <Choice
      label="Stands at"
      value={design[`${end}MountId`] ?? ""}
      onChange={(e) => {
        const point = site.mountingPoints.find((m) => m.id === e.target.value);
        change({ [`${end}MountId`]: point?.id ?? null, [`${end}MountAglM`]: point?.aglM ?? site.mountAglM });
      }}
    >
      <option value="">the site's mount, {site.mountAglM} m</option>
      {site.mountingPoints.map((m) => (
        <option key={m.id} value={m.id}>
          {m.name}, {m.aglM} m{m.behind === "" ? "" : `, ${m.behind}`}
        </option>
      ))}
    </Choice>
  );
};

/** Where the rules end the power: a mark of its own, whatever is set. */
const Lawful = ({ lawfulDbm, setDbm }: { lawfulDbm: number | null; setDbm: number }) =>
  lawfulDbm === null ? null : (
    <p className={`cap m-0 ${setDbm > lawfulDbm ? "font-figure text-short-figure" : ""}`} data-testid="lawful">
      Radio and rules allow {figure(lawfulDbm, Number.isInteger(lawfulDbm) ? 0 : 1)} dBm here.
    </p>
  );

/** Which of a unit's ports the cable goes into; nothing to ask while it has only one. */
const PortChoice = ({
  end,
  radio,
  design,
  change,
}: {
  end: "near" | "far";
  radio: HardwareDto["radios"][number] | undefined;
  design: DesignFields;
  change: Change;
}) => {
  if (radio === undefined || radio.ethernetPorts.length < 2) return null;
  const powered = poweredPort(radio);
  return (
    <Choice
      label="Cable goes into"
      value={String(design[`${end}Port`] ?? powered)}
      onChange={(e) => change({ [`${end}Port`]: Number(e.target.value) === powered ? null : Number(e.target.value) })}
    >
      {radio.ethernetPorts.map((p, i) => (
        <option key={i} value={i}>
          port {i + 1}, {p.speedMbps} Mbps{i === powered ? ", powered" : ""}
        </option>
      ))}
    </Choice>
  );
};

/** What is seldom needed of an end: connectors, a wall before it, interference heard, an aim of its own. */
const MoreOfEnd = ({ end, design, change }: { end: "near" | "far"; design: DesignFields; change: Change }) => {
  const wall = design[`${end}Wall`];
  const set = [
    design[`${end}ConnectorLossDb`] > 0,
    wall !== null,
    design[`${end}InterferenceDbm`] !== null,
    design[`${end}AimAzimuthDeg`] !== null || design[`${end}AimTiltDeg`] !== null,
  ].filter(Boolean).length;
  return (
    <details className="border-b border-rule pb-1.5">
      <summary className="min-h-6 cursor-pointer text-line leading-6">More of this end{set > 0 ? `, ${set} set` : ""}</summary>
      <div className="grid grid-cols-2 items-end gap-x-3 gap-y-1.5">
        <div className="col-span-2">
          <Choice
            label="Wall or window before the unit"
            value={wall ?? ""}
            onChange={(e) => change({ [`${end}Wall`]: e.target.value === "" ? null : e.target.value })}
          >
            <option value="">none, open air</option>
            {BARRIER_MATERIALS.map((m) => (
              <option key={m.id} value={m.id}>
                {m.name}, {m.leastDb} to {m.mostDb} dB
              </option>
            ))}
            <option value="measured">measured</option>
            <option value="unknown">not known</option>
          </Choice>
        </div>
        {wall === "measured" && (
          <NumberField
            label="Wall loss"
            unit="dB"
            value={design[`${end}WallLossDb`]}
            least={0}
            most={80}
            onChange={(v) => change({ [`${end}WallLossDb`]: v })}
          />
        )}
        <NumberField
          label="Connectors"
          unit="dB"
          value={design[`${end}ConnectorLossDb`]}
          least={0}
          most={40}
          onChange={(v) => change({ [`${end}ConnectorLossDb`]: v ?? 0 })}
        />
        <NumberField
          label="Heard there"
          unit="dBm"
          optional
          value={design[`${end}InterferenceDbm`]}
          least={-130}
          most={0}
          onChange={(v) => change({ [`${end}InterferenceDbm`]: v })}
        />
        <NumberField
          label="Aim, true"
          unit="°"
          optional
          value={design[`${end}AimAzimuthDeg`]}
          least={0}
          most={360}
          onChange={(v) => change({ [`${end}AimAzimuthDeg`]: v })}
        />
        <NumberField
          label="Tilt"
          unit="°"
          optional
          value={design[`${end}AimTiltDeg`]}
          least={-90}
          most={90}
          onChange={(v) => change({ [`${end}AimTiltDeg`]: v })}
        />
      </div>
      <p className="cap m-0 mt-1">Empty aim and tilt: pointed true at the other end.</p>
    </details>
  );
};

/** Radios, antennas, channel, powers and needs of the link; every change is drawn at once. */
export const GearPanel = ({
  rackHref,
  design,
  hardware,
  nearSite,
  farSite,
  change,
  record,
  day,
  lawful,
}: {
  /** Where every pair for this link stands in order. */
  rackHref: string;
  design: DesignFields;
  hardware: HardwareDto;
  nearSite: SiteDto;
  farSite: SiteDto;
  change: (fields: Partial<DesignFields>) => void;
  /** Opens the form of a permission; the day that it must cover. */
  record: () => void;
  day: string;
  /** What the rules and the radio allow at each end, dBm; null while it cannot be said. */
  lawful: { readonly nearDbm: number; readonly farDbm: number } | null;
}) => {
  const [pair, setPair] = useState(design.nearRadioId === design.farRadioId);
  const radioOf = (id: string) => hardware.radios.find((r) => r.id === id);
  const near = radioOf(design.nearRadioId);
  const far = radioOf(design.farRadioId);
  const ratios = [near, far].flatMap((r) => (r !== undefined && accessOf(r.duplex) === "scheduled" ? frameRatios(r.duplex) : []));
  const widths = [...new Set([...(near?.channelWidthsMhz ?? []), ...(far?.channelWidthsMhz ?? []), design.widthMhz])].sort((a, b) => a - b);
  const choose = (end: "near" | "far", id: string): void => {
    const radio = radioOf(id);
    if (radio === undefined) return;
    const both = pair;
    const antenna =
      radio.antenna.kind === "connectorised"
        ? (hardware.antennas.find((a) => a.bandsMhz.some((b) => radio.bandsMhz.some((r) => r.low < b.high && b.low < r.high)))?.id ?? null)
        : null;
    change({
      ...(end === "near" || both ? { nearRadioId: id, nearAntennaId: antenna, nearPort: null } : {}),
      ...(end === "far" || both ? { farRadioId: id, farAntennaId: antenna, farPort: null } : {}),
      ...fitChannel(design, radio),
    });
  };
  const radios = (
    <>
      {BANDS.map((band) => (
        <optgroup key={band} label={`${band} GHz`}>
          {hardware.radios
            .filter((r) => r.bandKey === band)
            .map((r) => (
              <option key={r.id} value={r.id}>
                {r.name}
                {r.antenna.gainDbi === undefined ? "" : `, ${r.antenna.gainDbi} dBi`}
                {r.source === "own" ? " (own)" : ""}
              </option>
            ))}
        </optgroup>
      ))}
    </>
  );
  const antennas = (bands: { low: number; high: number }[] | readonly { low: number; high: number }[]) =>
    hardware.antennas
      .filter((a) => a.bandsMhz.some((b) => bands.some((r) => r.low < b.high && b.low < r.high)))
      .map((a) => (
        <option key={a.id} value={a.id}>
          {a.name}, {a.gainDbi} dBi
        </option>
      ));
  return (
    <div className="grid min-h-0 flex-1 content-start gap-1.5 overflow-auto px-3.5 py-2 [&_input]:min-h-6 [&_input]:py-0.5 [&_select]:min-h-6 [&_select]:py-0.5">
      <Link prefetch={false} href={rackHref} className="press justify-self-start text-ink no-underline">
        Every pair for this link
      </Link>
      <label className="flex items-center gap-2 text-body">
        <input type="checkbox" checked={pair} onChange={(e) => setPair(e.target.checked)} className="h-4 w-4 accent-(--ink)" />
        Same radio at both ends
      </label>
      <h3 className="m-0 text-body font-bold text-near">{nearSite.name}</h3>
      <Choice label="Radio" value={design.nearRadioId} onChange={(e) => choose("near", e.target.value)}>
        {radios}
      </Choice>
      {near?.antenna.kind === "connectorised" && (
        <Choice label="Antenna" value={design.nearAntennaId ?? ""} onChange={(e) => change({ nearAntennaId: e.target.value || null })}>
          <option value="">none chosen</option>
          {antennas(near.bandsMhz)}
        </Choice>
      )}
      <div className="grid grid-cols-2 gap-3">
        <NumberField
          label="Power"
          unit="dBm"
          value={design.nearPowerDbm}
          least={near?.minTxPowerDbm ?? LEAST_POWER_DBM}
          most={near?.modulations[0]?.maxTxPowerDbm ?? MOST_POWER_DBM}
          onChange={(v) => change({ nearPowerDbm: v ?? 0 })}
        />
        <NumberField
          label="Feeder"
          unit="dB"
          value={design.nearFeederLossDb}
          least={0}
          most={40}
          onChange={(v) => change({ nearFeederLossDb: v ?? 0 })}
        />
      </div>
      <Lawful lawfulDbm={lawful?.nearDbm ?? null} setDbm={design.nearPowerDbm} />
      <PortChoice end="near" radio={near} design={design} change={change} />
      <MountChoice end="near" site={nearSite} design={design} change={change} />
      <MoreOfEnd end="near" design={design} change={change} />
      <h3 className="m-0 mt-1 text-body font-bold text-far">{farSite.name}</h3>
      <Choice label="Radio" value={design.farRadioId} onChange={(e) => choose("far", e.target.value)}>
        {radios}
      </Choice>
      {far?.antenna.kind === "connectorised" && (
        <Choice label="Antenna" value={design.farAntennaId ?? ""} onChange={(e) => change({ farAntennaId: e.target.value || null })}>
          <option value="">none chosen</option>
          {antennas(far.bandsMhz)}
        </Choice>
      )}
      <div className="grid grid-cols-2 gap-3">
        <NumberField
          label="Power"
          unit="dBm"
          value={design.farPowerDbm}
          least={far?.minTxPowerDbm ?? LEAST_POWER_DBM}
          most={far?.modulations[0]?.maxTxPowerDbm ?? MOST_POWER_DBM}
          onChange={(v) => change({ farPowerDbm: v ?? 0 })}
        />
        <NumberField
          label="Feeder"
          unit="dB"
          value={design.farFeederLossDb}
          least={0}
          most={40}
          onChange={(v) => change({ farFeederLossDb: v ?? 0 })}
        />
      </div>
      <Lawful lawfulDbm={lawful?.farDbm ?? null} setDbm={design.farPowerDbm} />
      <PortChoice end="far" radio={far} design={design} change={change} />
      <MountChoice end="far" site={farSite} design={design} change={change} />
      <MoreOfEnd end="far" design={design} change={change} />
      <h3 className="m-0 mt-1 text-body font-bold">Channel and need</h3>
      <div className="grid grid-cols-2 items-end gap-3">
        <NumberField
          label="Centre"
          unit="MHz"
          value={design.centreMhz}
          least={1000}
          most={100_000}
          onChange={(v) => change({ centreMhz: v ?? design.centreMhz })}
        />
        <Choice label="Width, MHz" value={String(design.widthMhz)} onChange={(e) => change({ widthMhz: Number(e.target.value) })}>
          {widths.map((w) => (
            <option key={w} value={w}>
              {w}
            </option>
          ))}
        </Choice>
        {ratios.length > 0 && (
          <div className="col-span-2">
            <Choice
              label="Frame, to far and back"
              value={design.frameShareToFar === null ? "" : String(Math.round(design.frameShareToFar * 100))}
              onChange={(e) => change({ frameShareToFar: e.target.value === "" ? null : Number(e.target.value) / 100 })}
            >
              <option value="">as asked for</option>
              {ratios.map((r) => (
                <option key={r} value={Math.round(r * 100)}>
                  {Math.round(r * 100)} to {Math.round((1 - r) * 100)}
                </option>
              ))}
            </Choice>
          </div>
        )}
        <NumberField
          label="Need to far"
          unit="Mbps"
          optional
          value={design.needToFarMbps}
          least={0}
          most={100_000}
          onChange={(v) => change({ needToFarMbps: v })}
        />
        <NumberField
          label="Need to near"
          unit="Mbps"
          optional
          value={design.needToNearMbps}
          least={0}
          most={100_000}
          onChange={(v) => change({ needToNearMbps: v })}
        />
      </div>
      <NumberField
        label="For this share of the year"
        unit="%"
        value={design.needYearPercent}
        least={LEAST_YEAR_PERCENT}
        most={MOST_YEAR_PERCENT}
        onChange={(v) => change({ needYearPercent: v ?? DEFAULT_YEAR_PERCENT })}
      />
      <h3 className="m-0 mt-1 text-body font-bold">Permission</h3>
      {design.permissions.length === 0 ? (
        <p className="cap m-0">None on record.</p>
      ) : (
        design.permissions.map((p) => (
          <p key={`${p.number}-${p.lowMhz}-${p.from}`} className="cap m-0">
            {permissionLine(p, design, day)}
          </p>
        ))
      )}
      <button type="button" className="press justify-self-start text-line" onClick={record}>
        Record a permission
      </button>
    </div>
  );
};
