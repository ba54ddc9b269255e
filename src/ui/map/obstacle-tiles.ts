import MVT from "ol/format/MVT";
import VectorTileLayer from "ol/layer/VectorTile";
import type OlMap from "ol/Map";
import VectorTileSource from "ol/source/VectorTile";
import TileGrid from "ol/tilegrid/TileGrid";
import { PLAN_RESOLUTIONS_M, PLAN_TILE_PX } from "@/contract";
import type { BodyKind } from "@/core/obstacles";
import { obstacleStyle } from "./styles";

type Token = (name: string) => string;

export interface ObstacleTiles {
  readonly layer: VectorTileLayer;
  readonly show: (on: boolean) => void;
  /** The smallest obstacle under a pixel, by its id. */
  readonly at: (map: OlMap, pixel: number[]) => string | null;
  /** Reads them again: something of them changed. */
  readonly again: () => void;
  readonly restyle: () => void;
}

/** Obstacles where there are more in view than are read whole: all of them, as vector tiles out of the database. */
export const createObstacleTiles = (jobId: string, crs: string, token: () => Token): ObstacleTiles => {
  let made = 0;
  const source = new VectorTileSource({
    format: new MVT(),
    projection: crs,
    wrapX: false,
    tileGrid: new TileGrid({ origin: [0, 0], resolutions: [...PLAN_RESOLUTIONS_M], tileSize: PLAN_TILE_PX }),
    tileUrlFunction: ([z, x, y]) => `/api/jobs/${jobId}/obstacles/tiles/${z}/${x}/${y}?made=${made}`,
  });
  const styleOf = new Map<string, ReturnType<typeof obstacleStyle>>();
  const layer = new VectorTileLayer({
    source,
    visible: false,
    renderMode: "hybrid",
    maxResolution: PLAN_RESOLUTIONS_M[0],
    style: (feature) => {
      const kind = feature.get("kind") as BodyKind;
      let style = styleOf.get(kind);
      if (style === undefined) {
        style = obstacleStyle(token(), kind, false);
        styleOf.set(kind, style);
      }
      return style;
    },
  });
  return {
    layer,
    show: (on) => layer.setVisible(on),
    at: (map, pixel) => {
      if (!layer.getVisible()) return null;
      let found: { readonly id: string; readonly size: number } | null = null;
      map.forEachFeatureAtPixel(
        pixel,
        (feature) => {
          const [west, south, east, north] = feature.getGeometry()!.getExtent() as [number, number, number, number];
          const size = (east - west) * (north - south);
          if (found === null || size < found.size) found = { id: feature.get("id") as string, size };
        },
        { layerFilter: (l) => l === layer },
      );
      return (found as { readonly id: string } | null)?.id ?? null;
    },
    again: () => {
      made++;
      source.refresh();
    },
    restyle: () => {
      styleOf.clear();
      layer.changed();
    },
  };
};
