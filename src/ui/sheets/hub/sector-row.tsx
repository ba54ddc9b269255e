"use client";
import { useMemo } from "react";
import { type HubSector, MOST_SECTORS } from "@/contract";
import { unitsOf } from "@/core/rack";
import { frameRatios } from "@/core/radio";
import { Choice } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { figure } from "../../wording/numbers";
import { deafOf } from "./deaf";
import { sectorName } from "./hub-start";
import { unitKeyOf } from "./use-hub-search";
import type { OpenHub } from "./use-open-hub";

const round = (deg: number): number => Math.round(deg * 10) / 10;
const TURNED_DEG = 90;

/** What the sector that is looked at is set to: each field is saved as it is typed. */
export const SectorRow = ({
  open,
  deviceMbps,
  setDeviceMbps,
}: {
  open: OpenHub;
  deviceMbps: number;
  setDeviceMbps: (mbps: number) => void;
}) => {
  const { fields, sector, hardware, changeSector, change, now } = open;
  const s = fields.sectors[sector];
  const units = useMemo(
    () => unitsOf(hardware.radios, hardware.antennas).filter((u) => u.radio.roles.some((r) => r === "hub" || r === "near/far")),
    [hardware],
  );
  const hanging = open.judged.remotes[sector];
  const deaf = useMemo(
    () => (fields.grant || s === undefined || hanging === undefined ? null : deafOf(hanging, s.centreMhz, s.widthMhz)),
    [fields.grant, s, hanging],
  );
  if (s === undefined) return null;
  const radio = hardware.radios.find((r) => r.id === s.radioId);
  const aim = open.judged.aims[sector] ?? { azimuthDeg: 0, tiltDeg: 0 };
  const own = unitKeyOf(s);
  const shown = units.filter((u) => u.radio.family === radio?.family || u.key === own);
  const turn = (to: Partial<Pick<HubSector, "azimuthDeg" | "tiltDeg">>): void =>
    changeSector(sector, { azimuthDeg: s.azimuthDeg ?? round(aim.azimuthDeg), tiltDeg: s.tiltDeg ?? round(aim.tiltDeg), ...to });
  const add = (): void => {
    const { sectors } = now();
    const id = `s${Math.max(0, ...sectors.map((x) => Number(/^s(\d+)$/.exec(x.id)?.[1] ?? 0))) + 1}`;
    change({
      sectors: [
        ...sectors,
        { ...s, id, azimuthDeg: ((s.azimuthDeg ?? aim.azimuthDeg) + TURNED_DEG) % 360, tiltDeg: s.tiltDeg ?? round(aim.tiltDeg) },
      ],
    });
    open.setSector(sectors.length);
  };
  const takeAway = (): void => {
    const { sectors, remotes } = now();
    change({ sectors: sectors.filter((x) => x.id !== s.id), remotes: remotes.filter((r) => r.sectorId !== s.id) });
  };
  const ratios = radio === undefined ? [] : frameRatios(radio.duplex);
  const field = (label: string, unit: string, value: number, least: number, most: number, set: (v: number) => void) => (
    <span className="w-[84px]">
      <NumberField label={label} unit={unit} value={value} least={least} most={most} onChange={(v) => v !== null && set(v)} />
    </span>
  );
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-1.5 border-t border-rule px-4 py-1.5 text-line" data-testid="sector">
      <span className="flex flex-wrap gap-x-3 gap-y-2 pb-1">
        {fields.sectors.map((x, i) => (
          <button
            key={x.id}
            type="button"
            className={`press min-h-6 text-line ${i === sector ? "bg-ink px-1 text-paper" : ""}`}
            aria-pressed={i === sector}
            onClick={() => open.setSector(i)}
          >
            {sectorName(x, fields.sectors)}
          </button>
        ))}
      </span>
      {open.drawn === null && (
        <>
          <span className="w-[180px]">
            <Choice
              label="Unit"
              value={own}
              onChange={(e) => {
                const unit = units.find((u) => u.key === e.target.value);
                if (unit !== undefined) changeSector(sector, { radioId: unit.radio.id, antennaId: unit.antenna?.id ?? null });
              }}
            >
              {!shown.some((u) => u.key === own) && <option value={own}>{radio?.name ?? "a radio that is gone"}</option>}
              {shown.map((u) => (
                <option key={u.key} value={u.key}>
                  {u.name}
                </option>
              ))}
            </Choice>
          </span>
          {field("Axis", "°", round(aim.azimuthDeg), 0, 360, (azimuthDeg) => turn({ azimuthDeg }))}
          {field("Tilt", "°", round(aim.tiltDeg), -90, 90, (tiltDeg) => turn({ tiltDeg }))}
          {field("Centre", "MHz", s.centreMhz, 1000, 350_000, (centreMhz) => changeSector(sector, { centreMhz }))}
          <span className="w-[84px]">
            <Choice
              label="Width, MHz"
              value={String(s.widthMhz)}
              onChange={(e) => changeSector(sector, { widthMhz: Number(e.target.value) })}
            >
              {[...new Set([...(radio?.channelWidthsMhz ?? []), s.widthMhz])]
                .sort((a, b) => a - b)
                .map((w) => (
                  <option key={w} value={w}>
                    {figure(w, w < 10 && w % 1 !== 0 ? 1 : 0)}
                  </option>
                ))}
            </Choice>
          </span>
          {field("Power", "dBm", s.powerDbm, -40, 50, (powerDbm) => changeSector(sector, { powerDbm }))}
          {ratios.length > 0 && (
            <span className="w-[120px]">
              <Choice
                label="Frame, there/back"
                value={s.frameShareToRemotes === null ? "" : String(s.frameShareToRemotes)}
                onChange={(e) => changeSector(sector, { frameShareToRemotes: e.target.value === "" ? null : Number(e.target.value) })}
              >
                <option value="">as asked</option>
                {[...new Set([...ratios, ...(s.frameShareToRemotes === null ? [] : [s.frameShareToRemotes])])].map((r) => (
                  <option key={r} value={r}>
                    {figure(r * 100)}/{figure((1 - r) * 100)}
                  </option>
                ))}
              </Choice>
            </span>
          )}
          <span className="w-[150px]">
            <Choice
              label="Remotes send"
              value={fields.grant ? "ask" : "listen"}
              onChange={(e) => change({ grant: e.target.value === "ask" })}
            >
              <option value="ask">when they are granted it</option>
              <option value="listen">when it is quiet</option>
            </Choice>
          </span>
          {!fields.grant && (
            <span className="w-[150px]">
              <Choice
                label="They hear each other"
                value={fields.hearEachOther === null ? "" : fields.hearEachOther ? "yes" : "no"}
                onChange={(e) => change({ hearEachOther: e.target.value === "" ? null : e.target.value === "yes" })}
              >
                <option value="">nobody has looked</option>
                <option value="yes">yes</option>
                <option value="no">no</option>
              </Choice>
            </span>
          )}
          {!fields.grant && deaf !== null && (
            <span
              className={`cap max-w-[230px] pb-1 ${deaf.deaf.length > 0 && fields.hearEachOther === true ? "v-tight font-figure" : ""}`}
              data-testid="deaf"
            >
              {deaf.deaf.length === 0
                ? `In the open all ${deaf.of} pairs of them would hear each other; what stands between is not known.`
                : `${deaf.deaf.length} of ${deaf.of} pairs of them cannot hear each other even in the open.`}
            </span>
          )}
          <span className="w-[120px]">
            <NumberField
              label="One more device"
              unit="Mbps"
              value={deviceMbps}
              least={0.1}
              most={10_000}
              onChange={(v) => v !== null && setDeviceMbps(v)}
            />
          </span>
          <span className="flex gap-x-4 pb-1">
            <button type="button" className="press min-h-6 text-line" disabled={fields.sectors.length >= MOST_SECTORS} onClick={add}>
              One more sector
            </button>
            {fields.sectors.length > 1 && (
              <button type="button" className="press min-h-6 text-line" onClick={takeAway}>
                Take this one away
              </button>
            )}
          </span>
        </>
      )}
    </div>
  );
};
