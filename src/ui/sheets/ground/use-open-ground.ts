"use client";
import { useSearchParams } from "next/navigation";
import { type RefObject, useCallback, useMemo, useRef, useState } from "react";
import {
  type DatasetDto,
  type FeatureDto,
  type JobBundle,
  type LinkVerdict,
  latLons,
  lonLats,
  type ObstacleDto,
  type PreviewDto,
} from "@/contract";
import { declination, type LatLon, utmCrsOf } from "@/core/geo";
import { bodyOf } from "../../api/client";
import { useBasemap, useDatasets, useRefresh, useVerdicts } from "../../api/queries";
import type { GroundMap, MapMode } from "../../map/ground-map";
import type { DrawShape } from "../../map/ground-tools";
import { useOutbox } from "../../state/browser-outbox";
import { withPendingSites } from "../../state/pending-sites";
import { usePreferences } from "../../state/preferences";
import { errorSentence } from "../../wording/errors";
import { VERDICT_ORDER } from "../../wording/verdicts";
import type { Knowledge } from "./ground-head";
import type { Panel } from "./ground-modes";
import { useDrawing } from "./use-drawing";
import { useGroundEdits } from "./use-ground-edits";
import type { ShownOnMap } from "./use-ground-map";
import { useView } from "./use-view";

const NO_DATASETS: readonly DatasetDto[] = [];

/** Panels that an address may open. */
const BESIDE = ["history", "told", "import"] as const;

/** The first of those whose path alone is as bad as they are, worst first: what the drawing can show the reason of. */
const worstOf = (rows: readonly LinkVerdict[]): LinkVerdict | undefined =>
  VERDICT_ORDER.flatMap((v) => rows.filter((l) => l.verdict === v && l.clearanceVerdict === v))[0];

/** The link that is chosen: at once where it is pressed, the address follows; what the address says of itself (back, forward) is taken over. */
const useChosenLink = (
  jobId: string,
): { readonly asked: string | null; readonly chosenId: string | null; readonly choose: (id: string) => void } => {
  const asked = useSearchParams().get("link");
  const [chosenId, setChosenId] = useState(asked);
  const written = useRef(asked);
  if (asked !== written.current) {
    written.current = asked;
    setChosenId(asked);
  }
  const choose = (linkId: string): void => {
    setChosenId(linkId);
    written.current = linkId;
    window.history.replaceState(null, "", `/jobs/${jobId}/ground?link=${linkId}`);
  };
  return { asked, chosenId, choose };
};

/** What the drawing tells of itself. */
const useTold = () => {
  const [reach, setReach] = useState<{ from: LatLon; to: LatLon } | null>(null);
  const [knowledge, setKnowledge] = useState<Knowledge | null>(null);
  const [mapTrouble, setMapTrouble] = useState<unknown>(null);
  const [measured, setMeasured] = useState<readonly LatLon[]>([]);
  const [inView, setInView] = useState<{ readonly shown: readonly ObstacleDto[]; readonly total: number }>({ shown: [], total: 0 });
  const events = {
    onReach: (from: LatLon | null, to: LatLon | null) => setReach(from === null || to === null ? null : { from, to }),
    onKnowledge: (datasets: Knowledge["datasets"], intervalM: number) => setKnowledge({ datasets, intervalM }),
    onTrouble: setMapTrouble,
    onMeasured: setMeasured,
    onObstacles: (shown: readonly ObstacleDto[], total: number) => setInView({ shown, total }),
  };
  return { reach, knowledge, mapTrouble, measured, setMeasured, inView, events };
};

/**
 * The ground as it stands open: what of the job is drawn, what is chosen, what the pointer does, and what is open beside it.
 * @param others what is to be done when somebody else changed something is put there.
 */
export const useOpenGround = (jobId: string, read: JobBundle, others: RefObject<() => void>) => {
  const { units, mode: colourMode } = usePreferences();
  const refresh = useRefresh();
  const search = useSearchParams();
  const { asked, chosenId, choose } = useChosenLink(jobId);
  const [mode, setMode] = useState<MapMode>("look");
  const [panel, setPanel] = useState<Panel>({ kind: BESIDE.find((kind) => kind === search.get("beside")) ?? "links" });
  const [joinFromId, setJoinFromId] = useState<string | null>(null);
  const [joinToId, setJoinToId] = useState("");
  const [fault, setFault] = useState<string | null>(null);
  const [dropped, setDropped] = useState<File | null>(null);
  const clearDropped = useCallback(() => setDropped(null), []);
  const [datasetId, setDatasetId] = useState<string | null>(null);
  const told = useTold();
  const target = useRef<HTMLDivElement>(null);
  const map = useRef<GroundMap | null>(null);

  const say = (error: unknown): void => setFault(errorSentence(bodyOf(error), units));
  const { edits: onTheirWay } = useOutbox();
  // What is on its way to the server is drawn as if it were there.
  const data = useMemo(() => ({ ...read, sites: withPendingSites(jobId, read.sites, onTheirWay) }), [read, jobId, onTheirWay]);
  const { job, sites, links } = data;
  const reload = (): void => map.current?.reload();
  const edits = useGroundEdits(jobId, links, say, reload);
  others.current = reload;
  const datasets = useDatasets(jobId).data ?? NO_DATASETS;
  const basemap = useBasemap(jobId);
  const crs = utmCrsOf({ latDeg: job.centreLatDeg, lonDeg: job.centreLonDeg });
  const view = useView(jobId, crs, job.kFactor, sites, (image) => map.current?.overlays.setView(image));

  const verdicts = useVerdicts(jobId);
  const rows = useMemo(() => verdicts.data ?? [], [verdicts.data]);
  const selectedId = rows.some((l) => l.linkId === chosenId) ? chosenId : ((worstOf(rows) ?? rows[0])?.linkId ?? null);
  const selectedLink = links.find((l) => l.id === selectedId);
  const siteOf = (id: string | undefined) => sites.find((s) => s.id === id);

  const chooseLink = (linkId: string): void => {
    setPanel({ kind: "links" });
    choose(linkId);
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
  const drawing = useDrawing({ map, edits, mode, panel, setMode, setPanel, setFault, say, leave: () => enter("look") });

  const drawn: ShownOnMap = {
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
    datasets,
    datasetsShown: panel.kind === "known",
    datasetId,
    basemap: basemap.data?.basemap ?? null,
    events: {
      ...told.events,
      onLink: chooseLink,
      onSite: (siteId) => {
        if (mode !== "join") setPanel({ kind: "site", siteId });
        else if (joinFromId === null) setJoinFromId(siteId);
        else void join(joinFromId, siteId);
      },
      onPlace: (at) => setPanel({ kind: "new", at }),
      onMoved: (siteId, at) => {
        const site = siteOf(siteId);
        if (site === undefined) return;
        setFault(null);
        edits.moveSite(site, { latDeg: at.latDeg, lonDeg: at.lonDeg }).catch((error: unknown) => {
          say(error);
          void refresh(jobId);
        });
      },
      onObstacle: (row: ObstacleDto) => {
        setPanel({ kind: "obstacle", row });
        map.current?.tools.mark("polygon", latLons(row.outline));
      },
      onFeature: (row: FeatureDto) => setPanel({ kind: "feature", row }),
      onDrawn: drawing.drawn,
      onOutline: (points) => {
        if (panel.kind === "obstacle")
          setPanel({ kind: "obstacle", row: { ...panel.row, outline: lonLats(points) }, opened: panel.opened ?? panel.row });
      },
    },
  };

  const enter = (next: MapMode): void => {
    setMode(next);
    setFault(null);
    setJoinFromId(null);
    told.setMeasured([]);
    setPanel(next === "place" ? { kind: "new", at: null } : next === "draw" ? { kind: "draw" } : { kind: "links" });
    map.current?.overlays.setPreview(null);
    if (next !== "view") view.clear();
    const tools = map.current?.tools;
    tools?.edit(null);
    if (next === "draw") tools?.draw(drawing.drawKind.shape);
    else if (next === "measure") tools?.measure(true);
  };
  const openDrawer = (kind: "import" | "export" | "known" | "history"): void => {
    enter("look");
    setPanel({ kind });
  };

  /** What is done on the drawing itself. */
  const onMap = {
    finish: (): void => map.current?.tools.finish(),
    /** A shape whose corners were typed instead of pressed. */
    typed: (shape: DrawShape, points: readonly LatLon[]): void => {
      map.current?.tools.mark(shape, points);
      drawing.drawn(shape, points);
    },
    measureBetween: (points: readonly LatLon[]): void => {
      map.current?.tools.mark("line", points);
      told.setMeasured(points);
    },
    fitAll: (): void => map.current?.showSites("all"),
    fitSites: (): void => map.current?.showSites(),
    look: (q: Parameters<typeof view.look>[0]): void => {
      if (map.current !== null) void view.look(q, map.current.extent());
    },
    preview: (preview: PreviewDto | null): void => {
      const extent = map.current?.overlays.setPreview(preview) ?? null;
      if (extent !== null) map.current?.fit(extent);
    },
    chooseDataset: (d: DatasetDto): void => {
      setDatasetId(d.id);
      map.current?.overlays.setDatasets(datasets, d.id);
      map.current?.fitPlaces(latLons(d.ring));
    },
  };
  const day = new Date(`${job.visitOn}T12:00:00Z`);

  return {
    jobId,
    job,
    links,
    sites,
    units,
    mode,
    panel,
    setPanel,
    enter,
    openDrawer,
    fault,
    setFault,
    say,
    edits,
    reload,
    drawing,
    view,
    drawn,
    onMap,
    ...told,
    onTheirWay,
    datasetId,
    dropped: { file: dropped, clear: clearDropped },
    drop: (file: File): void => {
      openDrawer("import");
      setDropped(file);
    },
    join: { fromId: joinFromId, toId: joinToId, setFrom: setJoinFromId, setTo: setJoinToId, make: join },
    verdicts,
    rows,
    selectedId,
    selected: rows.find((l) => l.linkId === selectedId),
    selectedLink,
    near: siteOf(selectedLink?.nearSiteId),
    far: siteOf(selectedLink?.farSiteId),
    chooseLink,
    declinationAt: (p: LatLon): number => declination(p, day).declinationDeg,
    /** Places of the job that a typed position is held against, but for one site. */
    knownPlaces: (but: string | null): readonly LatLon[] => [
      ...sites.filter((s) => s.id !== but),
      { latDeg: job.centreLatDeg, lonDeg: job.centreLonDeg },
    ],
  };
};

export type OpenGround = ReturnType<typeof useOpenGround>;
