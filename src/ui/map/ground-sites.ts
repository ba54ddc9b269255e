import { boundingExtent, buffer } from "ol/extent";
import Feature from "ol/Feature";
import LineString from "ol/geom/LineString";
import Point from "ol/geom/Point";
import VectorLayer from "ol/layer/Vector";
import VectorSource from "ol/source/Vector";
import { Circle, Fill, Stroke, Style } from "ol/style";
import type { GroundMap, GroundMapData } from "./ground-map-types";
import type { GroundPlan } from "./ground-plan";
import { linkStyles, siteStyle, typedPlaceStyle } from "./styles";

/** Sites this near the job's centre are shown first. */
const CLUSTER_M = 1300;

export const siteLayers = () => ({
  links: new VectorLayer({ source: new VectorSource() }),
  reach: new VectorLayer({ source: new VectorSource() }),
  sites: new VectorLayer({ source: new VectorSource(), declutter: true }),
});
export type SiteLayers = ReturnType<typeof siteLayers>;

/** Sites and links of the job on the plan, and the line from one to where the pointer is. */
export const createGroundSites = (plan: GroundPlan, { links, reach, sites }: SiteLayers) => {
  const { map, centre, toPlane, fromPlane, tokens, events } = plan;
  let data: GroundMapData = { sites: [], verdicts: [], links: [], selectedLinkId: null, joinFromId: null };

  const positionOf = (siteId: string): [number, number] | null => {
    const site = data.sites.find((s) => s.id === siteId);
    return site === undefined ? null : toPlane(site);
  };

  const drawLinks = (): void => {
    const verdicts = new Map(data.verdicts.map((v) => [v.linkId, v.verdict]));
    links.getSource()?.clear(true);
    for (const l of data.links) {
      const a = positionOf(l.nearSiteId);
      const b = positionOf(l.farSiteId);
      if (a === null || b === null) continue;
      const feature = new Feature(new LineString([a, b]));
      feature.set("linkId", l.id);
      feature.setStyle(linkStyles(tokens(), verdicts.get(l.id) ?? "unknown", l.id === data.selectedLinkId));
      links.getSource()?.addFeature(feature);
    }
  };

  const drawSites = (): void => {
    const chosen = data.links.find((l) => l.id === data.selectedLinkId);
    const perSite = new Map<string, number>();
    for (const l of data.links) perSite.set(l.nearSiteId, (perSite.get(l.nearSiteId) ?? 0) + 1);
    const roleOf = (id: string): "near" | "far" | "hub" | "site" => {
      if (id === (data.joinFromId ?? chosen?.nearSiteId)) return "near";
      if (id === chosen?.farSiteId) return "far";
      return (perSite.get(id) ?? 0) > 1 && chosen?.nearSiteId !== id ? "hub" : "site";
    };
    sites.getSource()?.clear(true);
    // Until a site stands, the position that the job was made with.
    if (data.sites.length === 0) {
      const typed = new Feature(new Point(toPlane(centre)));
      typed.setStyle(typedPlaceStyle(tokens(), "position of the job"));
      sites.getSource()?.addFeature(typed);
    }
    for (const s of data.sites) {
      const feature = new Feature(new Point(toPlane(s)));
      feature.set("siteId", s.id);
      feature.setStyle(siteStyle(tokens(), s.name, roleOf(s.id), ""));
      sites.getSource()?.addFeature(feature);
    }
  };

  const draw = (): void => {
    drawLinks();
    drawSites();
  };

  const reachTo = (from: [number, number] | null, to: [number, number] | null): void => {
    reach.getSource()?.clear(true);
    if (from === null || to === null) {
      events.onReach(null, null);
      return;
    }
    const t = tokens();
    const line = new Feature(new LineString([from, to]));
    line.setStyle(new Style({ stroke: new Stroke({ color: t("ink"), width: 1.6, lineDash: [7, 3] }) }));
    const end = new Feature(new Point(to));
    end.setStyle(
      new Style({
        image: new Circle({ radius: 5, stroke: new Stroke({ color: t("far"), width: 2.4 }), fill: new Fill({ color: t("paper") }) }),
      }),
    );
    reach.getSource()?.addFeatures([line, end]);
    events.onReach(fromPlane(...from), fromPlane(...to));
  };

  /** The selected link, or the cluster of sites about the job's centre; or all sites. */
  const show: GroundMap["showSites"] = (which = "link") => {
    const chosen = which === "link" ? data.links.find((l) => l.id === data.selectedLinkId) : undefined;
    const middle = toPlane(centre);
    const close = data.sites.filter((s) => {
      const [x, y] = toPlane(s);
      return Math.hypot(x - middle[0], y - middle[1]) < CLUSTER_M;
    });
    const ids =
      chosen === undefined
        ? (which !== "all" && close.length > 0 ? close : data.sites).map((s) => s.id)
        : [chosen.nearSiteId, chosen.farSiteId];
    const points = ids.map(positionOf).filter((p): p is [number, number] => p !== null);
    if (points.length === 0) {
      map.getView().setCenter(middle);
      return;
    }
    map
      .getView()
      .fit(buffer(boundingExtent(points), points.length === 1 ? 300 : 30), { padding: [90, 90, 70, 90], maxZoom: 30, minResolution: 0.4 });
  };

  return {
    set: (next: GroundMapData): void => {
      data = next;
      draw();
    },
    draw,
    show,
    positionOf,
    reachTo,
    joinFromId: (): string | null => data.joinFromId,
    /** The site at the other end of a link of this one. */
    acrossFrom: (siteId: string): string | null => {
      const link = data.links.find((l) => l.nearSiteId === siteId || l.farSiteId === siteId);
      if (link === undefined) return null;
      return link.nearSiteId === siteId ? link.farSiteId : link.nearSiteId;
    },
  };
};
export type GroundSites = ReturnType<typeof createGroundSites>;
