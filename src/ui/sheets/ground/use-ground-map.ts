"use client";
import { type RefObject, useEffect, useRef } from "react";
import type { BasemapDto, DatasetDto, JobBundle, LinkVerdict } from "@/contract";
import { createGroundMap, type GroundMap, type GroundMapEvents, type MapMode } from "../../map/ground-map";
import type { Units } from "../../wording/numbers";

/** What the plan drawing shows, and who is told of what is done on it. */
export interface ShownOnMap {
  readonly target: RefObject<HTMLDivElement | null>;
  readonly map: RefObject<GroundMap | null>;
  readonly jobId: string;
  readonly crs: string;
  readonly bundle: JobBundle;
  readonly verdicts: readonly LinkVerdict[];
  readonly fitLink: boolean;
  readonly selectedLinkId: string | null;
  readonly joinFromId: string | null;
  readonly mode: MapMode;
  readonly colourMode: string;
  readonly units: Units;
  readonly datasets: readonly DatasetDto[];
  readonly datasetsShown: boolean;
  readonly datasetId: string | null;
  readonly basemap: BasemapDto | null;
  readonly events: GroundMapEvents;
}

/** Makes the plan drawing and keeps it showing what the sheet holds. */
export const useGroundMap = (shown: ShownOnMap): void => {
  const { target, map, jobId, crs, bundle, verdicts, selectedLinkId, joinFromId, mode, datasets, datasetsShown, datasetId, basemap } =
    shown;
  // The drawing calls back into whatever stands here now.
  const events = useRef(shown.events);
  events.current = shown.events;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the map is made once for a job
  useEffect(() => {
    if (target.current === null) return;
    const centre = { latDeg: bundle.job.centreLatDeg, lonDeg: bundle.job.centreLonDeg };
    const made = createGroundMap(target.current, jobId, crs, centre, shown.fitLink, {
      onLink: (id) => events.current.onLink(id),
      onSite: (id) => events.current.onSite(id),
      onPlace: (at) => events.current.onPlace(at),
      onMoved: (id, at) => events.current.onMoved(id, at),
      onReach: (from, to) => events.current.onReach(from, to),
      onKnowledge: (known, intervalM) => events.current.onKnowledge(known, intervalM),
      onTrouble: (error) => events.current.onTrouble(error),
      onObstacle: (o) => events.current.onObstacle(o),
      onFeature: (f) => events.current.onFeature(f),
      onObstacles: (all, total) => events.current.onObstacles(all, total),
      onDrawn: (shape, points) => events.current.onDrawn(shape, points),
      onMeasured: (points, done) => events.current.onMeasured(points, done),
      onOutline: (points) => events.current.onOutline(points),
    });
    map.current = made;
    return () => {
      made.dispose();
      map.current = null;
    };
  }, [jobId]);

  useEffect(() => {
    map.current?.setData({ sites: bundle.sites, verdicts, links: bundle.links, selectedLinkId, joinFromId });
  }, [map, bundle, verdicts, selectedLinkId, joinFromId]);
  useEffect(() => map.current?.setMode(mode), [map, mode]);
  // What is known where is drawn while its list is open. New terrain is a new drawing.
  useEffect(() => map.current?.overlays.setDatasets(datasetsShown ? datasets : [], datasetId), [map, datasetsShown, datasets, datasetId]);
  const terrain = datasets.map((d) => d.id).join();
  const drawn = useRef(terrain);
  useEffect(() => {
    if (drawn.current === terrain) return;
    drawn.current = terrain;
    map.current?.reload();
  }, [map, terrain]);
  useEffect(() => map.current?.setBasemap(basemap?.credit ?? null, basemap?.id ?? ""), [map, basemap]);
  useEffect(() => map.current?.setUnits(shown.units), [map, shown.units]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a change of colours is what redraws
  useEffect(() => map.current?.restyle(), [shown.colourMode]);
};
