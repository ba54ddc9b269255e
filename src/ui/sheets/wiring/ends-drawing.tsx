"use client";
import { useMemo } from "react";
import { Hatches } from "../../drawing/hatches";
import { TYPE } from "../../drawing/type";
import { ghzText, lengthText } from "../../wording/numbers";
import { EndDrawing } from "./end-drawing";
import { foldsOf, GROUND_PX, HEAD_PX, heightsFor, LEAST_END_PX, layoutEnd, radioNeeds } from "./end-layout";
import type { OpenWiring } from "./use-open-wiring";
import { placesOfLink } from "./wiring-view";

const LEAST_HEIGHT = 360;
/** Of a roof that nobody measured: so far below the mount (ours). */
const BELOW_MOUNT_M = 2;
const HATCH = "wiring";

/** Both ends cut open on one ground line, with only air between. @param only one of them, where there is no room for both. */
export const EndsDrawing = ({
  open,
  width: room,
  only,
  pathM,
}: {
  open: OpenWiring;
  width: number;
  only: string | null;
  pathM: number | null;
}) => {
  const width = Math.max(room, only === null ? 2 * LEAST_END_PX : LEAST_END_PX);
  const sites = open.shown.filter((s) => only === null || s.siteId === only);
  const { height, layouts } = useMemo(() => {
    const half = only === null ? width / 2 : width;
    const asked = sites.map((site) => {
      const { wired: w, feeds } = site.judged;
      const isNear = site.siteId === open.near.siteId;
      const { shown } = placesOfLink(w, open.linkId);
      const apart = new Set([...site.findings.flatMap((f) => f.placeId ?? []), ...(open.chosen?.kind === "place" ? [open.chosen.id] : [])]);
      const { nearMountAglM, farMountAglM } = open.link.design;
      return {
        site,
        isNear,
        w,
        shown,
        folds: foldsOf(w, shown, apart),
        width: half,
        aglM: isNear ? nearMountAglM : farMountAglM,
        powered: new Set([...feeds.arrivals.values()].filter((a) => a.gives.scheme !== "mains").flatMap((a) => a.leads.map((l) => l.id))),
      };
    });
    const { px, pxPerM } = heightsFor(asked.map((a) => ({ needs: radioNeeds(a), aglM: a.aglM })));
    const tall = Math.max(LEAST_HEIGHT, ...px.map((p) => p + GROUND_PX + HEAD_PX));
    return {
      height: tall,
      layouts: asked.map(({ site, isNear, aglM, ...a }, i) => {
        const roofAglM = open.endOf(site.siteId).fields.roofAglM ?? Math.max(2.5, aglM - BELOW_MOUNT_M);
        return {
          site,
          layout: layoutEnd({
            ...a,
            linkId: open.linkId,
            x0: only === null && !isNear ? half : 0,
            mastSide: isNear ? "right" : "left",
            height: tall,
            radioPx: px[i]!,
            roofPx: pxPerM === null ? 0 : roofAglM * pxPerM,
            broken: pxPerM === null,
          }),
        };
      }),
    };
  }, [sites, width, only, open]);
  const ends = layouts.map(({ layout, site }) => {
    const box = layout.boxes.find((b) => b.place.kind === "radio");
    return box === undefined
      ? null
      : {
          x: box.x + box.w / 2,
          y: box.y + box.h / 2,
          near: site.siteId === open.near.siteId,
          top: box.y,
          edge: site.siteId === open.near.siteId ? box.x + box.w : box.x,
        };
  });
  const [a, b] = [ends.find((e) => e?.near === true), ends.find((e) => e?.near === false)];
  const { design } = open.link;
  const broken = layouts.some((l) => l.layout.broken);
  return (
    <div className="overflow-x-auto">
      {/* biome-ignore lint/a11y/useSemanticElements: there is no fieldset within a drawing */}
      <svg
        width={width}
        height={height}
        role="group"
        aria-label="Both ends cut open: drag from socket to socket to draw a lead"
        data-testid="ends"
      >
        <Hatches id={HATCH} />
        <rect x={0} y={height - GROUND_PX} width={width} height={GROUND_PX} fill="var(--ground-fill)" />
        <line x1={0} x2={width} y1={height - GROUND_PX} y2={height - GROUND_PX} stroke="var(--ground-line)" strokeWidth={1.6} />
        {a != null && b != null && (
          <g>
            <path
              d={`M${a.edge + 4} ${a.y}L${(a.edge + b.edge) / 2 + 4} ${(a.y + b.y) / 2 - 6}L${(a.edge + b.edge) / 2 - 4} ${(a.y + b.y) / 2 + 6}L${b.edge - 4} ${b.y}`}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={1.2}
            />
            <text x={width / 2} y={Math.min(a.top, b.top) - 42} textAnchor="middle" fontSize={TYPE.note} fontWeight={650} className="halo">
              {pathM === null ? "air" : `${lengthText(open.fieldUnits, pathM)} of air`}
            </text>
            <text x={width / 2} y={Math.min(a.top, b.top) - 28} textAnchor="middle" fontSize={TYPE.label} className="halo">
              {ghzText(design.centreMhz)}, {design.widthMhz} MHz
            </text>
          </g>
        )}
        {layouts.map(({ site, layout }) => (
          <EndDrawing key={site.siteId} open={open} site={site} layout={layout} hatch={HATCH} />
        ))}
        {broken && (
          <text x={8} y={14} fontSize={TYPE.label} fill="var(--ink-2)">
            Heights in figures, not to one scale.
          </text>
        )}
      </svg>
    </div>
  );
};

/** What the shapes and lines mean. */
export const WiringKey = () => (
  <p className="m-0 flex flex-wrap gap-x-5 gap-y-0.5 px-4 py-1 text-label">
    <span>▲ passive, ● 802.3, ■ data, ◆ fibre: filled gives, hollow takes</span>
    <span>thick line with power, thin data, dashes bond, S surge protector</span>
  </p>
);
