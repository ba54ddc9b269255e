"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import { type FieldErrors, useForm } from "react-hook-form";
import { z } from "zod";
import { type HardwareDto, SUPPLY_KINDS } from "@/contract";
import { LEAST_POWER_DBM, MOST_POWER_DBM } from "@/core/link";
import { CONNECTOR_PLACES, movedModulations, ownSheetId } from "@/core/radio";
import { Choice, Field } from "../../controls/field";
import { supplyText } from "../../wording/gear";
import { readNumber } from "../../wording/numbers";

const number = (what: string, least: number, most: number) =>
  z
    .string()
    .transform((t) => readNumber(t) ?? Number.NaN)
    .pipe(
      z.number(`${what} must be a number`).min(least, `${what} must be ${least} or above`).max(most, `${what} must be ${most} or less`),
    );

/** A figure that a sheet may leave out. */
const maybe = (what: string, least: number, most: number) =>
  z
    .string()
    .transform((t) => (t.trim() === "" ? undefined : (readNumber(t) ?? Number.NaN)))
    .pipe(
      z
        .number(`${what} must be a number`)
        .min(least, `${what} must be ${least} or above`)
        .max(most, `${what} must be ${most} or less`)
        .optional(),
    );

/** What a unit is bought and hung by: typed, or not known; never taken over from another. */
const BOUGHT = {
  price: maybe("price", 0, 1_000_000),
  stock: maybe("stock", 0, 100_000),
  width: maybe("width", 1, 10_000),
  height: maybe("height", 1, 10_000),
  poleLow: maybe("thinnest pole", 0, 2000),
  poleHigh: maybe("thickest pole", 0, 2000),
  bracket: z.string().trim().max(60, "a bracket's name has 60 letters or fewer"),
  place: z.enum(["", ...CONNECTOR_PLACES]),
};
const NOTHING_BOUGHT = { price: "", stock: "", width: "", height: "", poleLow: "", poleHigh: "", bracket: "", place: "" as const };
type Bought = { readonly [K in keyof typeof BOUGHT]?: z.output<(typeof BOUGHT)[K]> };
const boughtOf = (v: Bought): Record<string, unknown> => ({
  priceEur: v.price,
  stock: v.stock,
  sizeMm: v.width === undefined || v.height === undefined ? undefined : { width: v.width, height: v.height },
  poleDiameterMm: v.poleLow === undefined || v.poleHigh === undefined ? undefined : { low: v.poleLow, high: v.poleHigh },
  bracket: v.bracket === "" ? undefined : v.bracket,
  connectorPlace: v.place === "" ? undefined : v.place,
});

const BOUGHT_WORDS = [
  ["price", "Price of one, €"],
  ["stock", "In stock"],
  ["width", "Width of the face, mm"],
  ["height", "Height of the face, mm"],
  ["poleLow", "Thinnest pole, mm"],
  ["poleHigh", "Thickest pole, mm"],
  ["bracket", "Bracket it hangs on"],
] as const;
/** Where its lead comes out. */
const PLACE_OPTIONS = (
  <>
    <option value="">not stated</option>
    {CONNECTOR_PLACES.map((p) => (
      <option key={p}>{p}</option>
    ))}
  </>
);

const radioForm = z.object({
  name: z.string().trim().min(1, "name must not be empty").max(80, "name must be 80 letters or fewer"),
  like: z.string().min(1, "choose a radio whose modulation table to start from"),
  low: number("lowest frequency", 1000, 350_000),
  high: number("highest frequency", 1000, 350_000),
  gain: number("gain", -5, 70),
  beam: number("beamwidth", 0.05, 360),
  chains: number("chains", 1, 16),
  minPower: number("lowest power", LEAST_POWER_DBM, MOST_POWER_DBM),
  maxPower: number("highest power", LEAST_POWER_DBM, MOST_POWER_DBM),
  noise: number("noise figure", 0, 20),
  maxInput: number("hottest input", -60, 10),
  port: number("port speed", 1, 400_000),
  reach: number("range", 0.01, 200),
  shift: number("sensitivity difference", -30, 30),
  supplies: z.array(z.enum(SUPPLY_KINDS)),
  coldest: maybe("coldest day", -90, 90),
  hottest: maybe("hottest day", -90, 90),
  ...BOUGHT,
});

/** An own radio: the figures of its data sheet over the modulation table of a like one. */
export const RadioForm = ({ radios, take }: { radios: HardwareDto["radios"]; take: (text: string) => Promise<boolean> }) => {
  const form = useForm<z.input<typeof radioForm>, unknown, z.output<typeof radioForm>>({
    resolver: zodResolver(radioForm),
    defaultValues: {
      name: "",
      like: "",
      low: "",
      high: "",
      gain: "",
      beam: "",
      chains: "2",
      minPower: "0",
      maxPower: "",
      noise: "6",
      maxInput: "-30",
      port: "1000",
      reach: "",
      shift: "0",
      supplies: [],
      coldest: "",
      hottest: "",
      ...NOTHING_BOUGHT,
    },
  });
  const { errors, isSubmitting } = form.formState;
  const start = (id: string): void => {
    const r = radios.find((x) => x.id === id);
    if (r === undefined) return;
    form.setValue("low", String(r.bandsMhz[0]!.low));
    form.setValue("high", String(r.bandsMhz[r.bandsMhz.length - 1]!.high));
    form.setValue("gain", String(r.antenna.gainDbi ?? ""));
    form.setValue("beam", String(r.antenna.azimuthBeamwidthDeg ?? ""));
    form.setValue("chains", String(r.chains));
    form.setValue("minPower", String(r.minTxPowerDbm));
    form.setValue("maxPower", String(r.modulations[0]?.maxTxPowerDbm ?? ""));
    form.setValue("noise", String(r.noiseFigureDb));
    form.setValue("maxInput", String(r.maxOperatingInputDbm));
    form.setValue("port", String(Math.max(...r.ethernetPorts.map((p) => p.speedMbps))));
    form.setValue("reach", String(r.maxLinkKm));
  };
  const submit = form.handleSubmit(async (v) => {
    const like = radios.find((r) => r.id === v.like);
    if (like === undefined) return;
    if (v.high <= v.low) {
      form.setError("high", { message: "highest frequency must be above the lowest" });
      return;
    }
    const { source: _s, ...sheet } = like;
    const radio = {
      ...sheet,
      id: ownSheetId(v.name),
      name: v.name,
      bandsMhz: [{ low: v.low, high: v.high }],
      chains: v.chains,
      minTxPowerDbm: v.minPower,
      noiseFigureDb: v.noise,
      maxOperatingInputDbm: v.maxInput,
      maxLinkKm: v.reach,
      antenna: {
        kind: "integrated",
        form: like.antenna.form ?? "panel",
        gainDbi: v.gain,
        azimuthBeamwidthDeg: v.beam,
        elevationBeamwidthDeg: v.beam,
      },
      ethernetPorts: [{ port: 1, medium: "copper", speedMbps: v.port }],
      modulations: movedModulations(like.modulations, v.maxPower, v.shift),
      powerKinds: v.supplies.length === 0 ? undefined : v.supplies,
      temperatureC: v.coldest === undefined || v.hottest === undefined ? undefined : { low: v.coldest, high: v.hottest },
      ...boughtOf(v),
    };
    if (await take(JSON.stringify({ radios: [radio] }))) form.reset();
  });
  const text = (name: Exclude<keyof z.input<typeof radioForm>, "supplies" | "place">, label: string) => (
    <Field
      label={label}
      inputMode="decimal"
      fault={(errors as FieldErrors<Record<string, string>>)[name]?.message}
      {...form.register(name)}
    />
  );
  return (
    <form noValidate onSubmit={submit} aria-label="Own radio" className="grid grid-cols-2 items-end gap-x-4 gap-y-2">
      <div className="col-span-2">
        <Field label="Name" fault={errors.name?.message} {...form.register("name")} />
      </div>
      <div className="col-span-2">
        <Choice
          label="Modulations, family and roles like"
          {...form.register("like", { onChange: (e: { target: { value: string } }) => start(e.target.value) })}
        >
          <option value="">choose a radio to start from</option>
          {radios.map((r) => (
            <option key={r.id} value={r.id}>
              {r.name}, {r.bandKey} GHz
            </option>
          ))}
        </Choice>
        {errors.like !== undefined && (
          <span role="alert" className="text-note text-short-figure">
            {errors.like.message}
          </span>
        )}
      </div>
      {text("low", "Lowest frequency, MHz")}
      {text("high", "Highest frequency, MHz")}
      {text("gain", "Antenna gain, dBi")}
      {text("beam", "Beamwidth, °")}
      {text("chains", "Chains")}
      {text("port", "Port speed, Mbps")}
      {text("minPower", "Lowest power, dBm in all")}
      {text("maxPower", "Highest power, dBm in all")}
      {text("noise", "Noise figure, dB")}
      {text("maxInput", "Hottest input, dBm a chain")}
      {text("reach", "Range it is made for, km")}
      {text("shift", "Sensitivity against that, dB")}
      {BOUGHT_WORDS.map(([name, label]) => (
        <div key={name}>{text(name, label)}</div>
      ))}
      <Choice label="Connectors" {...form.register("place")}>
        {PLACE_OPTIONS}
      </Choice>
      {text("coldest", "Coldest day, °C")}
      {text("hottest", "Hottest day, °C")}
      <details className="col-span-2">
        <summary className="min-h-6 cursor-pointer text-line leading-6">Kinds of supply</summary>
        {SUPPLY_KINDS.map((k) => (
          <label key={k} className="flex min-h-7 items-center gap-2 text-line">
            <input type="checkbox" value={k} className="h-6 w-6 accent-(--ink)" {...form.register("supplies")} />
            {supplyText(k)}
          </label>
        ))}
      </details>
      <p className="cap col-span-2 m-0">Whole tables of modulations come in by file; the shape is the one of Save own as a file.</p>
      <button type="submit" className="main-action col-span-2 justify-self-start" disabled={isSubmitting}>
        Add the radio
      </button>
    </form>
  );
};

const antennaForm = z.object({
  name: z.string().trim().min(1, "name must not be empty").max(80, "name must be 80 letters or fewer"),
  form: z.enum(["panel", "dish", "horn", "sector", "omni"]),
  low: number("lowest frequency", 1000, 350_000),
  high: number("highest frequency", 1000, 350_000),
  gain: number("gain", -5, 70),
  azimuth: number("beamwidth", 0.05, 360),
  elevation: number("beamwidth", 0.05, 360),
  ...BOUGHT,
});

export const AntennaForm = ({ take }: { take: (text: string) => Promise<boolean> }) => {
  const form = useForm<z.input<typeof antennaForm>, unknown, z.output<typeof antennaForm>>({
    resolver: zodResolver(antennaForm),
    defaultValues: { name: "", form: "dish", low: "", high: "", gain: "", azimuth: "", elevation: "", ...NOTHING_BOUGHT },
  });
  const { errors, isSubmitting } = form.formState;
  const submit = form.handleSubmit(async (v) => {
    if (v.high <= v.low) {
      form.setError("high", { message: "highest frequency must be above the lowest" });
      return;
    }
    const antenna = {
      id: ownSheetId(v.name),
      name: v.name,
      form: v.form,
      bandsMhz: [{ low: v.low, high: v.high }],
      gainDbi: v.gain,
      azimuthBeamwidthDeg: v.azimuth,
      elevationBeamwidthDeg: v.elevation,
      ...boughtOf(v),
    };
    if (await take(JSON.stringify({ antennas: [antenna] }))) form.reset();
  });
  const text = (name: keyof z.input<typeof antennaForm>, label: string) => (
    <Field
      label={label}
      inputMode="decimal"
      fault={(errors as FieldErrors<Record<string, string>>)[name]?.message}
      {...form.register(name)}
    />
  );
  return (
    <form noValidate onSubmit={submit} aria-label="Own antenna" className="grid grid-cols-2 gap-x-4 gap-y-2.5">
      <div className="col-span-2">
        <Field label="Name" fault={errors.name?.message} {...form.register("name")} />
      </div>
      <Choice label="Form" {...form.register("form")}>
        {["panel", "dish", "horn", "sector", "omni"].map((f) => (
          <option key={f}>{f}</option>
        ))}
      </Choice>
      {text("gain", "Gain, dBi")}
      {text("low", "Lowest frequency, MHz")}
      {text("high", "Highest frequency, MHz")}
      {text("azimuth", "Beamwidth in azimuth, °")}
      {text("elevation", "Beamwidth in elevation, °")}
      {BOUGHT_WORDS.map(([name, label]) => (
        <div key={name}>{text(name, label)}</div>
      ))}
      <Choice label="Connectors" {...form.register("place")}>
        {PLACE_OPTIONS}
      </Choice>
      <button type="submit" className="main-action col-span-2 justify-self-start" disabled={isSubmitting}>
        Add the antenna
      </button>
    </form>
  );
};
