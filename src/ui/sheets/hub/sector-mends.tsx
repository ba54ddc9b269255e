"use client";
import type { Shape } from "@/core/hub";
import { countText } from "../../wording/gear";
import { dbText, figure, lengthText } from "../../wording/numbers";
import { fieldsOfShape } from "./hub-shapes";
import { sectorName } from "./hub-start";
import type { Drawn, OpenHub } from "./use-open-hub";

/** What would help the sector that is looked at, each drawn before it is planned. */
export const SectorMends = ({
  open,
  turn,
}: {
  open: OpenHub;
  /** The best axis and tilt of the sector as it is; null where it looks there already. */
  turn: { readonly azimuthDeg: number; readonly tiltDeg: number; readonly worstDb: number; readonly leftOver: readonly string[] } | null;
}) => {
  const { fields, sector, drawn, setDrawn, search, units, job, hardware } = open;
  const s = fields.sectors[sector];
  if (s === undefined) return null;
  const draw = (d: Drawn): void => setDrawn(drawn?.id === d.id ? null : d);
  const sectors = (set: Partial<typeof s>) => fields.sectors.map((x, i) => (i === sector ? { ...x, ...set } : x));
  const { mends } = search;
  const nameOf = (linkId: string): string => {
    const link = job.links.find((l) => l.id === linkId);
    return job.sites.find((x) => x.id === (link?.nearSiteId === open.hub.siteId ? link?.farSiteId : link?.nearSiteId))?.name ?? "";
  };
  const antenna = mends?.antenna ?? null;
  const offers: { readonly drawn: Drawn; readonly note: string; readonly main?: boolean }[] = [
    ...(turn === null
      ? []
      : [
          {
            main: true,
            drawn: {
              id: `turn:${s.id}`,
              words: `the ${sectorName(s, fields.sectors)} sector turned`,
              fields: { sectors: sectors({ azimuthDeg: turn.azimuthDeg, tiltDeg: turn.tiltDeg }) },
            },
            note: `Of all axes by 1° and tilts by 0.5°: the worst of its remotes then has ${dbText(turn.worstDb)} above what its need takes${turn.leftOver.length === 0 ? "" : `; left over: ${turn.leftOver.join(", ")}`}.`,
          },
        ]),
    ...(mends?.lower == null
      ? []
      : [
          {
            drawn: { id: "lower", words: "the mount lowered", fields: { mountAglM: mends.lower.mountAglM } },
            note: `At ${lengthText(units, mends.lower.mountAglM)} ${countText(mends.lower.well, "remote of it is", "remotes of it are")} well, and none is worse.`,
          },
        ]),
    ...(antenna === null
      ? []
      : [
          {
            drawn: { id: "antenna", words: "another unit on the mast", fields: { sectors: sectors(unitSet(antenna)) } },
            note: `${antenna.sectors[0]!.unit.name} at ${figure(antenna.sectors[0]!.azimuthDeg ?? 0)}°, tilt ${figure(antenna.sectors[0]!.tiltDeg ?? 0, 1)}°: serves ${antenna.served} of ${antenna.of}.`,
          },
        ]),
  ];
  const label = (d: Drawn): string => {
    if (d.id === "lower") return `Lower the mount to ${lengthText(units, mends!.lower!.mountAglM)}`;
    if (d.id === "antenna") return "Another unit in its place";
    return `Turn it to ${figure(turn!.azimuthDeg)}°, tilt ${figure(turn!.tiltDeg, 1)}°`;
  };
  return (
    <>
      {offers.map(({ drawn: d, note, main }) => (
        <div key={d.id} className="mt-2.5" data-testid={d.id.split(":")[0]}>
          <button
            type="button"
            className={main === true ? "main-action w-full text-left" : "press min-h-6 text-line"}
            aria-pressed={drawn?.id === d.id}
            onClick={() => draw(d)}
          >
            {label(d)}
          </button>
          <p className="cap m-0 mt-1">{note}</p>
        </div>
      ))}
      {mends?.better != null && (
        <p className="m-0 mt-2.5" data-testid="better">
          {nameOf(mends.better.linkId)} with {mends.better.unit.name} instead of{" "}
          {hardware.radios.find((r) => r.id === farRadioOf(open, mends.better!.linkId))?.name ?? "what is there"} frees{" "}
          <b>{figure(mends.better.freed * 100)} % of the air</b>, more than any other change at one remote.{" "}
          <a className="press leading-6" href={`/jobs/${open.jobId}/gear/${mends.better.linkId}`}>
            Its gear
          </a>
        </p>
      )}
    </>
  );
};

const farRadioOf = ({ job, hub }: OpenHub, linkId: string): string | undefined => {
  const link = job.links.find((l) => l.id === linkId);
  return link?.nearSiteId === hub.siteId ? link?.design.farRadioId : link?.design.nearRadioId;
};

const unitSet = (shape: Shape) => {
  const [only] = fieldsOfShape(shape).sectors;
  const { id: _id, ...set } = only!;
  return set;
};
