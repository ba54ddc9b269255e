declare module "geographiclib-geodesic" {
  interface GeodesicResult {
    lat1?: number;
    lon1?: number;
    lat2?: number;
    lon2?: number;
    azi1?: number;
    azi2?: number;
    s12?: number;
    a12?: number;
  }
  interface GeodesicLine {
    s13: number;
    Position(s12: number, outmask?: number): GeodesicResult;
  }
  interface GeodesicObject {
    Inverse(lat1: number, lon1: number, lat2: number, lon2: number, outmask?: number): GeodesicResult;
    Direct(lat1: number, lon1: number, azi1: number, s12: number, outmask?: number): GeodesicResult;
    InverseLine(lat1: number, lon1: number, lat2: number, lon2: number, caps?: number): GeodesicLine;
  }
  const lib: { Geodesic: { WGS84: GeodesicObject } };
  export default lib;
}

declare module "geomagnetism" {
  interface Model {
    name: string;
    start_date: Date;
    end_date: Date;
    point(coords: [number, number, number?]): { decl: number; incl: number };
  }
  const lib: { model(date?: Date, options?: { allowOutOfBoundsModel?: boolean }): Model };
  export default lib;
}

declare module "lerc" {
  interface LercImage {
    readonly width: number;
    readonly height: number;
    readonly pixels: readonly (
      | Float32Array
      | Float64Array
      | Int8Array
      | Uint8Array
      | Int16Array
      | Uint16Array
      | Int32Array
      | Uint32Array
    )[];
  }
  const lib: { decode(buffer: ArrayBuffer, options?: { returnPixelInterleavedDims?: boolean }): LercImage };
  export default lib;
}
