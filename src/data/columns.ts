import { customType } from "drizzle-orm/pg-core";

/** Raw bytes: terrain blocks. */
export const bytea = customType<{ data: Buffer; driverData: Buffer }>({ dataType: () => "bytea" });

/** PostGIS geometry in WGS84; written and read as GeoJSON text by the queries. */
export const geometry = customType<{ data: string; config: { type: string } }>({
  dataType: (config) => `geometry(${config?.type ?? "Geometry"},4326)`,
});
