"use client";
import { useSearchParams } from "next/navigation";
import { useCallback, useMemo, useRef, useState } from "react";
import { type DatasetDto, type FeatureDto, latLons, lonLats, type ObstacleDto, type SiteDto } from "@/contract";
import { declination, type LatLon, planeProjection, utmCrsOf } from "@/core/geo";
import { bodyOf } from "../../api/client";
import { useBasemap, useDatasets, useJob, useRefresh, useVerdicts } from "../../api/queries";
import { lazyPart } from "../../controls/lazy-part";
import { useKeys } from "../../controls/use-keys";
import { linkCell, openLinkActions } from "../../frame/link-cell";
import { Sheet } from "../../frame/sheet";
import { Trouble } from "../../frame/trouble";
import { UnitsButton } from "../../frame/units-button";
import type { GroundMap, MapMode } from "../../map/ground-map";
import { useOutbox } from "../../state/browser-outbox";
import { useJobNews } from "../../state/job-news";
import { withPendingSites } from "../../state/pending-sites";
import { usePreferences } from "../../state/preferences";
import { useOpened } from "../../state/use-opened";
import { errorSentence } from "../../wording/errors";
import { VERDICT_ORDER } from "../../wording/verdicts";
import { BasisCell } from "../basis/basis-cell";
import { useJobIndex } from "../job-index";
import { SHEETS } from "../registry";
import { AsideHead, hintOf } from "./aside-head";
import { DRAW_KINDS } from "./draw-kinds";
import { GroundHead, type Knowledge } from "./ground-head";
import { DRAWERS, MODES, type Panel } from "./ground-modes";
import { ChosenLink } from "./link-list";
import { LinksPane } from "./links-pane";
import type { SiteValues } from "./site-form";
import { useDrawing } from "./use-drawing";
import { useGroundEdits } from "./use-ground-edits";
import { useGroundMap } from "./use-ground-map";
import { useView } from "./use-view";

const GroundPanels = lazyPart(() => import("./ground-panels").then((m) => m.GroundPanels));
const SiteForm = lazyPart(() => import("./site-form").then((m) => m.SiteForm));
const JoinForm = lazyPart(() => import("./join-form").then((m) => m.JoinForm));

const NO_SITES: readonly SiteDto[] = [];
const NO_DATASETS: readonly DatasetDto[] = [];

const savedWords = (onTheirWay: number, refused: boolean, last: string | null): string => {
  if (refused) return "last edit refused";
  return onTheirWay > 0 ? `${onTheirWay} not sent yet` : (last ?? "all edits");
};

/** Panels that an address may open. */
const BESIDE = ["history", "told", "import"] as const;

export const GroundSheet = ({ jobId }: { jobId: string }) => {
  const job = useJob(jobId);
  const verdicts = useVerdicts(jobId);
  const { units, mode: colourMode } = usePreferences();
  const refresh = useRefresh();
  const search = useSearchParams();
  const asked = search.get("link");
  // Chosen at once; the address follows. What the address says of itself (back, forward) is taken over.
  const [chosenId, setChosenId] = useState(asked);
  const written = useRef(asked);
  if (asked !== written.current) {
    written.current = asked;
    setChosenId(asked);
  }
  const [mode, setMode] = useState<MapMode>("look");
  const [panel, setPanel] = useState<Panel>({ kind: BESIDE.find((kind) => kind === search.get("beside")) ?? "links" });
  const [joinFromId, setJoinFromId] = useState<string | null>(null);
  const [joinToId, setJoinToId] = useState("");
  const [reach, setReach] = useState<{ from: LatLon; to: LatLon } | null>(null);
  const [knowledge, setKnowledge] = useState<Knowledge | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [mapTrouble, setMapTrouble] = useState<unknown>(null);
  const [measured, setMeasured] = useState<readonly LatLon[]>([]);
  const [inView, setInView] = useState<{ readonly shown: readonly ObstacleDto[]; readonly total: number }>({ shown: [], total: 0 });
  const [dropped, setDropped] = useState<File | null>(null);
  const clearDropped = useCallback(() => setDropped(null), []);
  const [datasetId, setDatasetId] = useState<string | null>(null);
  const target = useRef<HTMLDivElement>(null);
  const map = useRef<GroundMap | null>(null);

  const say = (error: unknown): void => setFault(errorSentence(bodyOf(error), units));
  const { edits: onTheirWay } = useOutbox();
  // What is on its way to the server is drawn as if it were there.
  const data = useMemo(
    () => (job.data === undefined ? undefined : { ...job.data, sites: withPendingSites(jobId, job.data.sites, onTheirWay) }),
    [job.data, jobId, onTheirWay],
  );
  const sites = data?.sites ?? [];
  const knownPlaces = (but: string | null) => [
    ...sites.filter((s) => s.id !== but),
    ...(data === undefined ? [] : [{ latDeg: data.job.centreLatDeg, lonDeg: data.job.centreLonDeg }]),
  ];
  const reload = (): void => map.current?.reload();
  const edits = useGroundEdits(jobId, data?.links ?? [], say, reload);
  const { history, moveSite } = edits;
  useJobNews(jobId, reload);
  const datasets = useDatasets(jobId);
  const basemap = useBasemap(jobId);
  const crs = data === undefined ? "EPSG:4326" : utmCrsOf({ latDeg: data.job.centreLatDeg, lonDeg: data.job.centreLonDeg });
  const view = useView(jobId, crs, data?.job.kFactor ?? 4 / 3, sites, (image) => map.current?.overlays.setView(image));
  const rows = useMemo(() => verdicts.data ?? [], [verdicts.data]);
  const selectedId = rows.some((l) => l.linkId === chosenId)
    ? chosenId
    : (VERDICT_ORDER.flatMap((v) => rows.filter((l) => l.verdict === v && l.clearanceVerdict === v))[0]?.linkId ?? rows[0]?.linkId ?? null);
  const selected = rows.find((l) => l.linkId === selectedId);
  const index = useJobIndex(jobId, rows, selectedId);
  const selectedLink = data?.links.find((l) => l.id === selectedId);

  const chooseLink = (linkId: string): void => {
    setPanel({ kind: "links" });
    setChosenId(linkId);
    written.current = linkId;
    window.history.replaceState(null, "", `/jobs/${jobId}/ground?link=${linkId}`);
  };

  const addSite = async (values: SiteValues): Promise<void> => {
    await edits.addSite(values);
    setMode("look");
    setPanel({ kind: "links" });
  };
  const removeSite = async (site: SiteDto): Promise<void> => {
    await edits.removeSite(site);
    setPanel({ kind: "links" });
  };
  const join = async (nearSiteId: string, farSiteId: string): Promise<void> => {
    setFault(null);
    try {
      const linkId = await edits.join(nearSiteId, farSiteId);
      setMode("look");
      setJoinFromId(null);
      setJoinToId("");
      chooseLink(linkId);
    } catch (error) {
      say(error);
    }
  };
  const { drawKind, chooseDrawKind, drawnDone, saved, editOutline, cutOutline, drawn } = useDrawing({
    map,
    edits,
    mode,
    panel,
    setMode,
    setPanel,
    setFault,
    say,
    leave: () => enter("look"),
  });
  const takeLinkAway = (linkId: string): void => {
    edits.removeLink(linkId).catch(say);
  };

  const events = {
    onLink: chooseLink,
    onSite: (siteId: string): void => {
      if (mode !== "join") setPanel({ kind: "site", siteId });
      else if (joinFromId === null) setJoinFromId(siteId);
      else void join(joinFromId, siteId);
    },
    onPlace: (at: LatLon): void => setPanel({ kind: "new", at }),
    onMoved: (siteId: string, at: LatLon): void => {
      const site = sites.find((s) => s.id === siteId);
      if (site === undefined) return;
      setFault(null);
      moveSite(site, { latDeg: at.latDeg, lonDeg: at.lonDeg }).catch((error: unknown) => {
        say(error);
        void refresh(jobId);
      });
    },
    onObstacle: (row: ObstacleDto): void => {
      setPanel({ kind: "obstacle", row });
      map.current?.tools.mark("polygon", latLons(row.outline));
    },
    onFeature: (row: FeatureDto): void => setPanel({ kind: "feature", row }),
    onDrawn: drawn,
    onMeasured: setMeasured,
    onOutline: (points: readonly LatLon[]): void => {
      if (panel.kind === "obstacle")
        setPanel({ kind: "obstacle", row: { ...panel.row, outline: lonLats(points) }, opened: panel.opened ?? panel.row });
    },
  };
  useGroundMap({
    target,
    map,
    jobId,
    crs,
    bundle: data,
    verdicts: rows,
    fitLink: asked !== null,
    selectedLinkId: selectedId,
    joinFromId: mode === "join" ? joinFromId : null,
    mode,
    colourMode,
    units,
    datasets: datasets.data ?? NO_DATASETS,
    datasetsShown: panel.kind === "known",
    datasetId,
    basemap: basemap.data?.basemap ?? null,
    events: {
      ...events,
      onReach: (from, to) => setReach(from === null || to === null ? null : { from, to }),
      onKnowledge: (known, intervalM) => setKnowledge({ datasets: known, intervalM }),
      onTrouble: setMapTrouble,
      onObstacles: (shown, total) => setInView({ shown, total }),
    },
  });

  const enter = (next: MapMode): void => {
    setMode(next);
    setFault(null);
    setJoinFromId(null);
    setMeasured([]);
    setPanel(next === "place" ? { kind: "new", at: null } : next === "draw" ? { kind: "draw" } : { kind: "links" });
    map.current?.overlays.setPreview(null);
    if (next !== "view") view.clear();
    const tools = map.current?.tools;
    tools?.edit(null);
    if (next === "draw") tools?.draw(drawKind.shape);
    else if (next === "measure") tools?.measure(true);
  };
  const openDrawer = (kind: (typeof DRAWERS)[number]["kind"]): void => {
    enter("look");
    setPanel({ kind });
  };
  const siteOfPanel = panel.kind === "site" ? sites.find((site) => site.id === panel.siteId) : undefined;
  const [openedSite, setOpenedSite] = useOpened(siteOfPanel);
  const [openedLink, setOpenedLink] = useOpened(panel.kind === "told" ? selectedLink : undefined);
  useKeys({
    ...Object.fromEntries(MODES.map((m) => [m.key, () => enter(m.mode)])),
    ...Object.fromEntries(DRAWERS.map((d) => [d.key, () => openDrawer(d.kind)])),
    escape: () => enter("look"),
    f: () => map.current?.showSites(),
  });

  if (data === undefined) {
    return (
      <div className="h-dvh p-2">
        <div className="h-full border-[1.6px] border-ink">
          <Trouble error={job.error ?? job.failureReason} waiting="Reading the job." />
        </div>
      </div>
    );
  }
  const day = new Date(`${data.job.visitOn}T12:00:00Z`);
  const declinationAt = (p: LatLon): number => declination(p, day).declinationDeg;
  const near = sites.find((s) => s.id === selectedLink?.nearSiteId);
  const far = sites.find((s) => s.id === selectedLink?.farSiteId);
  const showLinks = ["links", "site", "new"].includes(panel.kind) && mode !== "measure" && mode !== "view";
  const wide = panel.kind !== "links" || mode === "measure" || mode === "view";

  return (
    <Sheet
      rows={index}
      jobId={jobId}
      of={SHEETS.ground}
      undo={history}
      actions={[
        ...MODES.map((m) => ({ name: m.name, run: () => enter(m.mode) })),
        ...DRAWERS.map((d) => ({ name: d.name, run: () => openDrawer(d.kind) })),
        ...DRAW_KINDS.map((k) => ({
          name: `Draw: ${k.name.toLowerCase()}`,
          run: () => {
            enter("draw");
            chooseDrawKind(k);
          },
        })),
        ...openLinkActions(jobId, rows),
      ]}
      strip={[
        { label: "Job", value: data.job.name, grow: 2 },
        linkCell(selected ?? null),
        { label: "Sheet", value: "", grow: 1 },
        { label: "Day of visit", value: data.job.visitOn, grow: 1 },
        { label: "Units", value: <UnitsButton />, grow: 0.9 },
        { label: "Policy in force", value: <BasisCell job={data.job} />, grow: 2.3 },
        { label: "Saved", value: savedWords(onTheirWay.length, fault !== null, history.last), grow: 1.6 },
      ]}
    >
      {/* What opens beside the drawing lies over its edge: the drawing never moves under the pointer. */}
      <div className="panes relative grid h-full min-h-0 grid-cols-[minmax(0,1fr)_252px]">
        <section
          aria-label="Drawing"
          className="ground-area relative min-h-0"
          onDragOver={(e) => e.preventDefault()}
          onDrop={(e) => {
            e.preventDefault();
            const file = e.dataTransfer.files[0];
            if (file === undefined) return;
            openDrawer("import");
            setDropped(file);
          }}
        >
          <div
            ref={target}
            // biome-ignore lint/a11y/noNoninteractiveTabindex: an application takes the keys itself.
            tabIndex={0}
            role="application"
            aria-label="Ground: plan drawing. Arrow keys move it, plus and minus zoom."
            className="map absolute inset-0"
            data-testid="map"
          />
          <GroundHead
            knowledge={knowledge}
            units={units}
            mode={mode}
            enter={enter}
            reach={reach}
            declinationAt={declinationAt}
            bringIn={() => openDrawer("import")}
            fitAll={() => map.current?.showSites("all")}
            inView={{ shown: inView.shown.length, total: inView.total }}
          />
          {mapTrouble !== null && (
            <div className="absolute inset-x-10 top-24 border border-short bg-paper">
              <Trouble error={mapTrouble} waiting="" />
            </div>
          )}
        </section>
        <aside
          aria-label="Links and sites"
          className={`flex min-h-0 flex-col border-l border-ink bg-paper ${wide ? "min-[900px]:absolute min-[900px]:inset-y-0 min-[900px]:right-0 min-[900px]:z-10 min-[900px]:w-[330px]" : ""}`}
        >
          <AsideHead
            open={panel.kind}
            wide={wide}
            toggle={(kind) => (panel.kind === kind ? enter("look") : openDrawer(kind))}
            hint={hintOf(mode)}
            fault={fault}
            forget={() => setFault(null)}
          />
          {mode === "join" && (
            <JoinForm
              sites={sites}
              units={units}
              fromId={joinFromId}
              toId={joinToId}
              setFrom={setJoinFromId}
              setTo={setJoinToId}
              onJoin={(near, far) => void join(near, far)}
            />
          )}
          {panel.kind === "new" && (
            <div className="max-h-[78%] overflow-auto border-b border-ink px-3.5 py-3">
              <SiteForm
                key={panel.at === null ? "typed" : `${panel.at.latDeg},${panel.at.lonDeg}`}
                site={null}
                known={knownPlaces(null)}
                others={sites}
                at={panel.at}
                units={units}
                submitName="Place it"
                onSubmit={addSite}
                onCancel={() => enter("look")}
              />
            </div>
          )}
          {siteOfPanel !== undefined && (
            <div className="max-h-[78%] overflow-auto border-b border-ink px-3.5 py-3">
              <SiteForm
                key={siteOfPanel.id}
                site={siteOfPanel}
                known={knownPlaces(siteOfPanel.id)}
                others={NO_SITES}
                at={null}
                units={units}
                submitName="Keep"
                onSubmit={async (v) => {
                  await edits.changeSite(openedSite ?? siteOfPanel, v);
                  setPanel({ kind: "links" });
                }}
                onCancel={() => setPanel({ kind: "links" })}
                onDelete={() => removeSite(siteOfPanel)}
                onTaken={setOpenedSite}
              />
            </div>
          )}
          <GroundPanels
            jobId={jobId}
            panel={panel}
            mode={mode}
            units={units}
            visitOn={data.job.visitOn}
            sites={sites}
            others={inView.shown}
            edits={edits}
            openedLink={openedLink}
            onTakenLink={setOpenedLink}
            onTaken={setPanel}
            drawKind={drawKind}
            chooseDrawKind={chooseDrawKind}
            measured={measured}
            onFinish={() => map.current?.tools.finish()}
            onTyped={(shape, points) => {
              map.current?.tools.mark(shape, points);
              drawn(shape, points);
            }}
            measureBetween={(points) => {
              map.current?.tools.mark("line", points);
              setMeasured(points);
            }}
            view={view}
            onLook={(q) => map.current !== null && void view.look(q, map.current.extent())}
            dropped={{ file: dropped, clear: clearDropped }}
            onPreview={(preview) => {
              const extent = map.current?.overlays.setPreview(preview) ?? null;
              if (extent !== null) map.current?.fit(extent);
            }}
            datasetId={datasetId}
            chooseDataset={(d) => {
              setDatasetId(d.id);
              map.current?.overlays.setDatasets(datasets.data ?? [], d.id);
              const plane = planeProjection(crs);
              const xy = latLons(d.ring).map((p) => plane.forward(p));
              if (xy.length > 0) {
                map.current?.fit([
                  Math.min(...xy.map((p) => p[0])),
                  Math.min(...xy.map((p) => p[1])),
                  Math.max(...xy.map((p) => p[0])),
                  Math.max(...xy.map((p) => p[1])),
                ]);
              }
            }}
            link={selectedLink}
            linkTitle={near === undefined || far === undefined ? "" : `${near.name} to ${far.name}`}
            onSaved={saved}
            onDone={drawnDone}
            onLeave={() => enter("look")}
            onEdit={editOutline}
            onCut={cutOutline}
            reload={reload}
          />
          <LinksPane
            shown={showLinks}
            verdicts={verdicts.data}
            trouble={verdicts.error ?? verdicts.failureReason}
            selectedId={selectedId}
            units={units}
            choose={chooseLink}
            sites={sites}
            sitesShown={mode === "look" && panel.kind === "links"}
            openSite={(siteId) => setPanel({ kind: "site", siteId })}
          />
          {showLinks && selected !== undefined && near !== undefined && far !== undefined && (
            <ChosenLink
              verdict={selected}
              near={near}
              far={far}
              declinationDeg={declinationAt(near)}
              units={units}
              jobId={jobId}
              told={selectedLink?.groundTold ?? null}
              onTell={() => setPanel({ kind: "told" })}
              onTakeAway={() => takeLinkAway(selected.linkId)}
            />
          )}
        </aside>
      </div>
    </Sheet>
  );
};
