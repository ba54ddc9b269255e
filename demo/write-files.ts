import { mkdirSync, writeFileSync } from "node:fs";
import path from "node:path";
import { featureCollection, gridToGeoTiff, lineFeature, pointFeature, polygonFeature } from "../src/formats";
import { scanTexts } from "./air";
import type { DemoJob } from "./generate";

const fileName = (name: string): string => name.toLowerCase().replaceAll(/[^a-z0-9]+/g, "-");

/** The demo as open files: GeoTIFF for terrain, GeoJSON for the rest. Returns the paths written. */
export const writeDemoFiles = (demo: DemoJob, dir: string): string[] => {
  mkdirSync(dir, { recursive: true });
  const written: string[] = [];
  const write = (name: string, content: string | Uint8Array): void => {
    const file = path.join(dir, name);
    writeFileSync(file, content);
    written.push(file);
  };
  for (const g of demo.grids) {
    write(`${fileName(g.name)}.tif`, gridToGeoTiff({ ...g, stepX: g.cellM, stepY: -g.cellM, epsg: Number(g.crs.slice(5)) }));
  }
  write("obstacles.geojson", featureCollection(demo.obstacles.map(({ outline, ...properties }) => polygonFeature(outline, properties))));
  write("sites.geojson", featureCollection(demo.sites.map(({ position, key: _key, ...properties }) => pointFeature(position, properties))));
  write("features.geojson", featureCollection(demo.features.map((f) => lineFeature(f.points, { name: f.name }))));
  const at = (key: string) => demo.sites.find((s) => s.key === key)!;
  write(
    "links.geojson",
    featureCollection(
      demo.links.map(({ near, far, ...rest }) =>
        lineFeature([at(near).position, at(far).position], { near: at(near).name, far: at(far).name, ...rest }),
      ),
    ),
  );
  for (const [name, text] of Object.entries(scanTexts())) write(name, text);
  return written;
};
