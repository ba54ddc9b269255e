"use client";
import Link from "next/link";
import { useState } from "react";
import type { JudgedRemote, SectorAim } from "@/core/hub";
import { bodyOf } from "../../api/client";
import { useVerdicts } from "../../api/queries";
import { TypedFigure } from "../../controls/typed-figure";
import { TypingScope } from "../../controls/typing-scope";
import { useKeys } from "../../controls/use-keys";
import { useSize } from "../../drawing/use-size";
import { Sheet } from "../../frame/sheet";
import { VerdictMark } from "../../marks/verdict-mark";
import { useJobHistory } from "../../state/job-history";
import { errorSentence } from "../../wording/errors";
import { countText, rateText } from "../../wording/gear";
import { figure, lengthIn, lengthText, lengthUnit, metresFrom, type Units } from "../../wording/numbers";
import { VERDICT_WORD } from "../../wording/verdicts";
import { useJobIndex } from "../job-index";
import { jobStrip } from "../job-strip";
import { SHEETS } from "../registry";
import { NARROW_PX } from "../section/narrow";
import { EditNotices, SheetHead } from "../sheet-head";
import { AirStrip } from "./air-strip";
import { CutDrawing } from "./cut-drawing";
import { HubFindings } from "./hub-findings";
import { HubMounts } from "./hub-mounts";
import { fieldsOfShape, sameChannel } from "./hub-shapes";
import { sectorName } from "./hub-start";
import { hubReason } from "./hub-words";
import { LaterRows } from "./later-rows";
import { PlanDrawing } from "./plan-drawing";
import { SectorRow } from "./sector-row";
import { ShapesTable } from "./shapes-table";
import { type HubRead, useOpenHub } from "./use-open-hub";

const DRAWING_PX = 316;
const MOST_MOUNT_M = 500;
const round = (deg: number): number => Math.round(deg * 10) / 10;

/** A hub: which remote lies where in which beam, what the air holds, and what mends it. */
export const HubOpen = (read: HubRead) => {
  const verdicts = useVerdicts(read.job.job.id);
  const open = useOpenHub(read, verdicts.data);
  const { job, jobId, fields, judged, sector, chosen, record, status, units, verdict, changeSector } = open;
  const [said, setSaid] = useState<string | null>(null);
  const [deviceMbps, setDeviceMbps] = useState(4);
  const history = useJobHistory(
    jobId,
    (error) => setSaid(errorSentence(bodyOf(error), units)),
    () => setSaid(null),
  );
  const index = useJobIndex(jobId, verdicts.data, null);
  const [ref, area] = useSize<HTMLDivElement>();
  const s = fields.sectors[sector];
  const own = judged.sectors[sector] ?? null;
  const name = s === undefined ? "" : sectorName(s, fields.sectors);
  const reason = hubReason(judged.sectors, fields.sectors, verdict);
  const needs = new Map(
    job.links.map((l) => {
      const [far, near] = [l.design.needToFarMbps ?? 0, l.design.needToNearMbps ?? 0];
      return [l.id, l.nearSiteId === open.hub.siteId ? ([far, near] as const) : ([near, far] as const)];
    }),
  );
  const step = (by: number): void => open.setSector((sector + by + fields.sectors.length) % Math.max(1, fields.sectors.length));
  useKeys({ "(\\[)": () => step(-1), "(\\])": () => step(1) });
  const remotes = judged.sectors.reduce((n, j) => n + (j?.remotes.length ?? 0), judged.unjudged.length);
  const aim = judged.aims[sector] ?? { azimuthDeg: 0, tiltDeg: 0 };
  /** What looked at its one remote is set by both angles from now on. */
  const turn = (i: number, to: Partial<SectorAim>): void => {
    // What is drawn as if is planned or left first.
    if (open.drawn !== null) return;
    const now = judged.aims[i]!;
    const set = fields.sectors[i]!;
    changeSector(i, { azimuthDeg: set.azimuthDeg ?? round(now.azimuthDeg), tiltDeg: set.tiltDeg ?? round(now.tiltDeg), ...to });
  };
  const narrow = area.width > 0 && area.width < NARROW_PX;
  const half = narrow ? area.width - 2 : Math.floor(area.width * 0.44);
  return (
    <TypingScope of={record}>
      <Sheet
        rows={index.map((r) =>
          r.key === "hub" ? { ...r, state: verdict === "clear" ? "settled" : { verdict, words: VERDICT_WORD[verdict].toLowerCase() } } : r,
        )}
        jobId={jobId}
        of={SHEETS.hub}
        undo={{ ...history, canUndo: history.canUndo || status.kind !== "saved" }}
        actions={[
          { name: "All hubs of the job", href: `/jobs/${jobId}/hub` },
          { name: "Clients moved over from an old hub", href: `/jobs/${jobId}/hub/${open.hub.id}/moving` },
        ]}
        strip={jobStrip(
          job.job,
          {
            label: (
              <>
                Hub <VerdictMark verdict={verdict} a={7} /> <span className={`font-figure v-${verdict}`}>{VERDICT_WORD[verdict]}</span>
              </>
            ),
            value: open.title,
            grow: 2.5,
          },
          status,
          history.last,
        )}
      >
        <div className="panes grid h-full min-h-0 grid-cols-[minmax(0,1fr)_232px] min-[1500px]:grid-cols-[minmax(0,1fr)_264px]">
          <div ref={ref} className="flex min-h-0 min-w-0 flex-col overflow-auto">
            <SheetHead verdict={verdict} narrow={narrow}>
              <h1 className="m-0 text-head font-bold leading-6">
                <span className="text-near">{open.title}</span>, hub of {countText(remotes, "remote", "remotes")}
              </h1>
              {reason !== null && verdict !== "clear" && (
                <p className={`m-0 text-line font-heading leading-[18px] v-${verdict}`} data-testid="headline-trouble">
                  {reason}
                </p>
              )}
              <div className="flex flex-wrap items-baseline gap-x-3 text-line leading-[20px]">
                <span>mount</span>
                <TypedFigure
                  value={lengthIn(units, fields.mountAglM)}
                  now={() => lengthIn(units, record.store.getState().live.mountAglM ?? fields.mountAglM)}
                  unit={lengthUnit(units)}
                  label={`${open.title}: mount height above ground`}
                  least={0}
                  most={lengthIn(units, MOST_MOUNT_M)}
                  step={units === "metric" ? 0.1 : 0.5}
                  bigStep={units === "metric" ? 1 : 5}
                  onChange={(v) => open.change({ mountAglM: metresFrom(units, v) })}
                />
                <Link className="press min-h-6 leading-6" href={`/jobs/${jobId}/hub/${open.hub.id}/moving`}>
                  Clients moved over from an old hub
                </Link>
              </div>
            </SheetHead>
            <EditNotices kind="hub" record={record} status={status} setAside={open.setAside} units={units} said={said} />
            {open.drawn !== null && (
              <div
                className="flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-ink bg-band px-4 py-1.5 text-body"
                data-testid="drawn"
              >
                <span>
                  Drawn as if: {open.drawn.words}. Nothing is planned yet.
                  {sameChannel(fields.sectors) > 0 &&
                    ` ${sameChannel(fields.sectors)} of its sectors would be on one channel: which is free is not judged here.`}
                </span>
                <button
                  type="button"
                  className="main-action"
                  onClick={() => {
                    if (open.drawn !== null) open.change(open.drawn.fields);
                  }}
                >
                  Plan it
                </button>
                <button type="button" className="press min-h-6 text-body" onClick={() => open.setDrawn(null)}>
                  Leave it
                </button>
              </div>
            )}
            <div className={`flex flex-none border-t border-ink ${narrow ? "flex-col" : ""}`}>
              {area.width > 0 && (
                <>
                  <div className="border-r border-rule">
                    <PlanDrawing
                      hub={{ ...fields, title: open.title }}
                      sectors={judged.sectors}
                      patterns={judged.patterns}
                      aims={judged.aims}
                      chosenSector={sector}
                      chosenRemote={chosen?.linkId ?? null}
                      width={half}
                      height={DRAWING_PX}
                      units={units}
                      chooseRemote={open.chooseRemote}
                      chooseSector={open.setSector}
                      onBegin={() => record.begin("drag")}
                      onTurn={(i, azimuthDeg) => turn(i, { azimuthDeg })}
                      onEnd={record.end}
                    />
                  </div>
                  {own !== null && chosen !== null ? (
                    <div className="min-w-0 flex-1">
                      <CutDrawing
                        aim={aim}
                        judged={own}
                        remotes={judged.remotes[sector]!}
                        chosen={chosen}
                        width={narrow ? area.width : area.width - half - 2}
                        height={DRAWING_PX - 74}
                        units={units}
                        onBegin={() => record.begin("drag")}
                        onTilt={(tiltDeg) => turn(sector, { tiltDeg })}
                        onEnd={record.end}
                      />
                      <PlaceFigure of={chosen} sector={name} units={units} />
                    </div>
                  ) : (
                    <p className="m-4 text-body">Nothing hangs on this sector that can be judged.</p>
                  )}
                </>
              )}
            </div>
            <SectorRow open={open} deviceMbps={deviceMbps} setDeviceMbps={setDeviceMbps} />
            {own !== null && s !== undefined && (
              <div className="border-t border-rule">
                <AirStrip
                  name={name}
                  judged={own}
                  channel={`${figure(s.widthMhz)} MHz on ${figure(s.centreMhz)}`}
                  deviceMbps={deviceMbps}
                  needs={needs}
                />
              </div>
            )}
            {open.search.shapes.length > 0 && (
              <ShapesTable
                shapes={open.search.shapes}
                busy={open.search.busy}
                drawn={open.search.shapes.find(([kind]) => `shape:${kind}` === open.drawn?.id)?.[0] ?? null}
                draw={(shape) =>
                  open.setDrawn(
                    shape === null ? null : { id: `shape:${shape.kind}`, words: "another shape of the hub", fields: fieldsOfShape(shape) },
                  )
                }
                units={units}
              />
            )}
            <LaterRows open={open} />
            <HubMounts open={open} say={(error) => setSaid(errorSentence(bodyOf(error), units))} />
          </div>
          <HubFindings open={open} say={(error) => setSaid(errorSentence(bodyOf(error), units))} verdicts={verdicts.data ?? []} />
        </div>
      </Sheet>
    </TypingScope>
  );
};

/** The sheet's one large figure: how far out of the beam, else what is missing of the rate, else how deep in the beam it lies. */
const PlaceFigure = ({ of: r, sector, units }: { of: JudgedRemote; sector: string; units: Units }) => {
  const asked = (r.kept?.toFar.needMbps ?? 0) + (r.kept?.toNear.needMbps ?? 0);
  const lacks = r.kept === null ? asked : Math.max(0, (1 - r.kept.multiple) * asked);
  const [large, words] =
    r.place.where !== "in"
      ? [`${figure(r.place.byDeg, 1)}°`, `${r.place.where} the ${sector} beam: ${r.name}`]
      : lacks > 0
        ? [`${rateText(Math.max(0.1, lacks))} Mbps`, `short at ${r.name}, in the ${sector} beam`]
        : [`${figure(-r.place.lossDb, 1)} dB`, `off the axis: ${r.name}, in the ${sector} beam`];
  return (
    <div className="flex items-center gap-4 px-4 pb-1.5">
      <div className={`whitespace-nowrap text-[44px] font-verdict leading-[50px] v-${r.verdict}`} data-testid="place-figure">
        {large}
      </div>
      <div className="min-w-0 text-line">
        <div className="truncate font-bold">{words}</div>
        <div>
          It lies {figure(-r.elevationDeg, 1)}° down, {lengthText(units, r.distanceM, 0)} off; {figure(-r.place.lossDb, 1)} dB lost. Level{" "}
          {r.thereDbm === null ? "none" : `${figure(r.thereDbm)} dBm`} there, {r.backDbm === null ? "none" : `${figure(r.backDbm)} dBm`}{" "}
          back.
        </div>
      </div>
    </div>
  );
};
