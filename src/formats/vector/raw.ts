import type { LatLon } from "../../core/geo";

/** One feature of a file as it came: its place in the file, its words and figures, its shape in degrees. */
export interface RawFeature {
  /** Counted from 1, as a person counts rows or features. */
  readonly row: number;
  readonly properties: Readonly<Record<string, string | number | boolean | null>>;
  readonly shape: RawShape;
}

export type RawShape =
  | { readonly type: "point"; readonly at: LatLon; readonly heightM: number | null }
  | { readonly type: "line"; readonly points: readonly LatLon[] }
  /** Outer ring and the rings of its holes (courtyards), none repeating its first point. */
  | { readonly type: "polygon"; readonly outline: readonly LatLon[]; readonly holes: readonly (readonly LatLon[])[] };

export interface RowFault {
  readonly row: number;
  readonly reason: string;
}

/** What a reader hands on: features one by one, and what it had to refuse. */
export interface VectorSink {
  readonly feature: (f: RawFeature) => void | Promise<void>;
  readonly fault: (f: RowFault) => void;
  /** Something that was taken, and not as it stands in the file: a track thinned, a link not followed. */
  readonly note?: (f: RowFault) => void;
  /** True when reading is to stop: enough was seen, or the import was stopped. */
  readonly enough?: () => boolean;
}

export interface VectorQuestion {
  /** System of the coordinates when the file does not say, or says it wrongly. */
  readonly epsg: number | null;
  /** Columns of a table that hold the position: two angles or two grid coordinates, or one text with both. */
  readonly latColumn?: string | undefined;
  readonly lonColumn?: string | undefined;
  /** Latitude and longitude stand exchanged in the file. */
  readonly swapped?: boolean | undefined;
}
