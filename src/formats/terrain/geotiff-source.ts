import { stat } from "node:fs/promises";
import { fromFile } from "geotiff";
import { FileFault, reasonOf } from "../file-fault";
import { heightOf, type TerrainSource } from "./source";
import { type BlockLists, checkTiff } from "./tiff-check";
import { boundDecoders, PACKINGS } from "./tiff-decoders";

/** GeoTIFF codes of vertical units. */
const UNIT_OF: Readonly<Record<number, TerrainSource["verticalUnit"]>> = { 9001: "m", 9002: "ft", 9003: "us-ft" };
const MOST_SIDE = 400_000;
/** A block is unpacked whole: 128 MB of 32-bit values at the most. */
const MOST_BLOCK_SAMPLES = 32_000_000;
/** Code of a system that the file describes itself, without a number. */
const USER_DEFINED = 32_767;
const PIXEL_IS_AREA = 1;
const PIXEL_IS_POINT = 2;

type Image = Awaited<ReturnType<Awaited<ReturnType<typeof fromFile>>["getImage"]>>;

interface Frame {
  readonly originX: number;
  readonly originY: number;
  readonly stepX: number;
  readonly stepY: number;
}

/** Corner and steps by the tags themselves, so that rows running north are kept as they are. */
const frameOf = async (image: Image): Promise<Frame> => {
  const tag = async (name: string): Promise<number[] | null> => {
    const dir = image.fileDirectory as unknown as Directory;
    return dir.hasTag(name) ? Array.from(await dir.loadValue(name)) : null;
  };
  const matrix = await tag("ModelTransformation");
  const scale = await tag("ModelPixelScale");
  const tie = await tag("ModelTiepoint");
  // Without a raster type a value is that of its cell's area (OGC 19-008, requirement of GTRasterTypeGeoKey).
  const half =
    Number((image.getGeoKeys() as Record<string, unknown> | null)?.GTRasterTypeGeoKey ?? PIXEL_IS_AREA) === PIXEL_IS_POINT ? 0 : 0.5;
  if (matrix !== null) {
    if (Math.abs(matrix[1]!) > 1e-9 * Math.abs(matrix[0]!) || Math.abs(matrix[4]!) > 1e-9 * Math.abs(matrix[5]!)) {
      throw new FileFault("the grid is turned against its axes; warp it upright first");
    }
    const [stepX, stepY] = [matrix[0]!, matrix[5]!];
    return { originX: matrix[3]! + half * stepX, originY: matrix[7]! + half * stepY, stepX, stepY };
  }
  if (scale === null || tie === null || tie.length < 6) throw new FileFault("the file does not say where it lies: it has no georeference");
  const [stepX, stepY] = [scale[0]!, -scale[1]!];
  return { originX: tie[3]! + (half - tie[0]!) * stepX, originY: tie[4]! + (half - tie[1]!) * stepY, stepX, stepY };
};

interface Directory {
  readonly hasTag: (name: string) => boolean;
  readonly loadValue: (name: string) => Promise<ArrayLike<number>>;
  readonly actualizedFields?: Map<number, unknown>;
  readonly deferredFields?: Map<number, unknown>;
  readonly deferredArrays?: Map<number, unknown>;
}

/** More blocks than this would take longer to walk than to tile anew. */
const MOST_BLOCKS = 5_000_000;

/** Blocks to a row and in all, by the picture's own figures. */
const gridOf = (image: Image): { across: number; blocks: number } => {
  const across = Math.ceil(image.getWidth() / image.getTileWidth());
  return { across, blocks: across * Math.ceil(image.getHeight() / image.getTileHeight()) };
};

/**
 * The reader fills what a file lacks with zeros, which would pass for sea: each block must lie within the file. It also
 * takes long lists for little-endian whatever the file is: the lists read here are put in their place.
 */
const refuseCutOff = async (image: Image, path: string, { offsets, counts }: BlockLists): Promise<void> => {
  const { size } = await stat(path);
  const dir = image.fileDirectory as unknown as Directory;
  const { blocks } = gridOf(image);
  if (!(blocks <= MOST_BLOCKS && offsets.length >= blocks && counts.length >= blocks))
    throw new FileFault(`it says ${blocks} blocks of heights and lists ${Math.min(offsets.length, counts.length)}`);
  if (!PACKINGS.includes(Number((await dir.loadValue("Compression").catch(() => 1)) ?? 1)))
    throw new FileFault("its heights are packed in a way that is not read here");
  let present = 0;
  for (let i = 0; i < blocks; i++) {
    const bytes = Number(counts[i] ?? 0);
    if (bytes > 0) present++;
    if (Number(offsets[i]) + bytes > size) throw new FileFault("the file is cut off: some of its heights lie beyond its end");
  }
  const cells = image.getWidth() * image.getHeight();
  if (present === 0) throw new FileFault("it holds no heights at all: none of its blocks is there");
  if (cells > MOST_CLAIMED_CELLS && present < blocks * LEAST_PRESENT_SHARE)
    throw new FileFault(`it says ${cells} cells and holds ${present} of ${blocks} blocks of them; cut it to the part that is there`);
  for (const [tag, list] of [
    [dir.hasTag("TileOffsets") ? TILE_OFFSETS : STRIP_OFFSETS, offsets],
    [dir.hasTag("TileOffsets") ? TILE_COUNTS : STRIP_COUNTS, counts],
  ] as const) {
    dir.deferredFields?.delete(tag);
    dir.deferredArrays?.delete(tag);
    dir.actualizedFields?.set(tag, list);
  }
};

/** A grid of more cells must hold at least this share of its blocks (ours): walking what is not there takes long. */
const MOST_CLAIMED_CELLS = 400_000_000;
const LEAST_PRESENT_SHARE = 0.05;
const STRIP_OFFSETS = 273;
const STRIP_COUNTS = 279;
const TILE_OFFSETS = 324;
const TILE_COUNTS = 325;

/** Codes of the PhotometricInterpretation that are colours: palette, RGB, CMYK, YCbCr, CIELab. */
const COLOURS: readonly number[] = [2, 3, 5, 6, 8];

/** Pictures of the ground are no heights, however they lie on a map. */
const refusePhoto = (image: Image): void => {
  const kind = Number(
    (image.fileDirectory as unknown as { getValue: (name: string) => unknown }).getValue("PhotometricInterpretation") ?? 1,
  );
  if (COLOURS.includes(kind) || image.getSamplesPerPixel() >= 3) throw new FileFault("it is a picture in colours, not a grid of heights");
};

const epsgOf = (keys: Record<string, unknown>): number | null => {
  for (const key of ["ProjectedCSTypeGeoKey", "GeographicTypeGeoKey"]) {
    const value = keys[key];
    if (value === USER_DEFINED) return null;
    if (typeof value === "number" && value >= 1024) return value;
  }
  return null;
};

/** Scale and offset that a writer may have kept apart from the values. */
const scalingOf = async (image: Image): Promise<{ scale: number; offset: number }> => {
  try {
    const items = ((await image.getGDALMetadata(0)) ?? {}) as Record<string, unknown>;
    return { scale: Number(items.SCALE ?? items.scale ?? 1) || 1, offset: Number(items.OFFSET ?? items.offset ?? 0) || 0 };
  } catch {
    return { scale: 1, offset: 0 };
  }
};

/** Opens a height GeoTIFF: any compression the reader knows, tiled or in strips, overviews passed over. @throws FileFault. */
export const openGeoTiff = async (path: string): Promise<TerrainSource> => {
  let file: Awaited<ReturnType<typeof fromFile>> | null = null;
  try {
    const lists = await checkTiff(path);
    boundDecoders();
    file = await fromFile(path);
    const opened = file;
    const image = await opened.getImage(0);
    const [cols, rows] = [image.getWidth(), image.getHeight()];
    if (!(cols >= 2 && rows >= 2)) throw new FileFault(`a grid of ${cols} by ${rows} cells is too small`);
    if (!(cols <= MOST_SIDE && rows <= MOST_SIDE))
      throw new FileFault(`a grid of ${cols} by ${rows} cells is larger than the ${MOST_SIDE} a side taken`);
    if (!(image.getTileWidth() * image.getTileHeight() * image.getSamplesPerPixel() <= MOST_BLOCK_SAMPLES)) {
      throw new FileFault("its blocks are too large to be read one at a time; write it with tiles");
    }
    refusePhoto(image);
    await refuseCutOff(image, path, lists);
    const { across } = gridOf(image);
    const frame = await frameOf(image);
    if (!(Math.abs(frame.stepX) > 0 && Math.abs(frame.stepY) > 0 && Number.isFinite(frame.originX) && Number.isFinite(frame.originY))) {
      throw new FileFault("the georeference of the file is not a number");
    }
    const keys = (image.getGeoKeys() ?? {}) as Record<string, unknown>;
    const noData = image.getGDALNoData();
    const { scale, offset } = await scalingOf(image);
    return {
      format: "GeoTIFF",
      cols,
      rows,
      ...frame,
      epsg: epsgOf(keys),
      verticalUnit: UNIT_OF[Number(keys.VerticalUnitsGeoKey)] ?? null,
      noData,
      read: async (left, top, right, bottom) => {
        try {
          const [band] = (await image.readRasters({ window: [left, top, right, bottom], samples: [0] })) as unknown as [ArrayLike<number>];
          const out = new Float32Array((right - left) * (bottom - top));
          for (let i = 0; i < out.length; i++) out[i] = heightOf(band[i]!, noData) * scale + offset;
          return out;
        } catch (error) {
          throw new FileFault(`its heights cannot be read: ${reasonOf(error)}`);
        }
      },
      holds: (left, top, right, bottom) => {
        const [w, h] = [image.getTileWidth(), image.getTileHeight()];
        for (let r = Math.floor(top / h); r * h < bottom; r++)
          for (let c = Math.floor(left / w); c * w < right; c++) if (Number(lists.counts[r * across + c] ?? 0) > 0) return true;
        return false;
      },
      close: async () => {
        await opened.close();
      },
    };
  } catch (error) {
    await Promise.resolve(file?.close()).catch(() => undefined);
    if (error instanceof FileFault) throw error;
    throw new FileFault(`it cannot be read as GeoTIFF: ${reasonOf(error)}`);
  }
};
