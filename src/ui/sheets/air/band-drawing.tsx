"use client";
import { useId, useMemo } from "react";
import { type Channel, type Stretch, skylineOf } from "@/core/air";
import { bandKeyOf, rowsInForce } from "@/core/radio";
import { TYPE } from "../../drawing/type";
import { bandScale, stretchesOf } from "./air-scale";
import type { Receiver } from "./air-view";
import { HEARD_PX, LEFT, NOISE_PX, RIGHT, RULES_PX } from "./band-frame";
import { HeardStrip } from "./heard-strip";
import { Mast, mastHeight } from "./mast-rows";
import { NoisePanel } from "./noise-panel";
import { RulesSkyline } from "./rules-skyline";
import type { OpenAir } from "./use-open-air";

const MOST_MASTS = 4;
/** A sector's antenna that a hub is drawn with where the unit at hand is no hub, dBi. */
const HUB_GAIN_DBI = 17;

/** The band of a job: what the rules allow, what is heard, who hangs where, and the noise that rises at one mast's receivers. */
export const BandDrawing = ({
  open,
  width,
  proposed,
  plan,
}: {
  open: OpenAir;
  width: number;
  /** Channels that a search proposes, by unit. */
  proposed: ReadonlyMap<string, Channel> | null;
  /** Plans what is drawn. */
  plan: () => void;
}) => {
  const id = useId().replaceAll(":", "");
  const { band, read, built, view, rows, names, receiver } = open;
  const domain = read.job.job.ruleDomain;
  const own = read.job.job.ownRules;
  const inBand = view.units.filter((u) => bandKeyOf(u.channel.centreMhz) === band);
  const asking = inBand[0]?.unit.links[0]?.plan;
  const gainDbi = asking?.near.radio.antenna.gainDbi ?? asking?.near.antenna?.gainDbi ?? 16;
  const stretches = useMemo(
    () =>
      band === null
        ? []
        : stretchesOf(
            rowsInForce(domain, own),
            band,
            inBand.map((u) => [u.channel.centreMhz - u.channel.widthMhz / 2, u.channel.centreMhz + u.channel.widthMhz / 2] as const),
          ),
    [domain, own, band, inBand],
  );
  const scale = useMemo(() => bandScale(stretches, LEFT, width - RIGHT), [stretches, width]);
  const sky = (use: "pair" | "hub"): Stretch[] =>
    stretches.flatMap(([low, high]) =>
      skylineOf(domain, own, use, use === "pair" ? gainDbi : Math.min(gainDbi, HUB_GAIN_DBI), 20, low, high, {}),
    );
  if (band === null || width < LEFT + 120) return null;
  const pair = sky("pair");
  const hub = sky("hub");
  const radar = pair.filter((s) => s.radar);
  const shown = rows.slice(0, MOST_MASTS);
  const folded = rows.slice(MOST_MASTS);
  let at = RULES_PX + HEARD_PX;
  const mastTops = shown.map((m) => {
    const y = at;
    at += mastHeight(m, proposed);
    return y;
  });
  const noiseTop = at + (folded.length > 0 ? 20 : 0);
  const height = noiseTop + NOISE_PX;
  return (
    // biome-ignore lint/a11y/useSemanticElements: inside a drawing there is no fieldset.
    <svg
      width={width}
      height={height}
      role="group"
      aria-label={`The ${band} GHz band: rules, what is heard, own channels, noise`}
      className="block"
      data-testid="band"
    >
      <defs>
        <pattern id={`${id}-meet`} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V6" stroke="var(--short)" strokeWidth="1.6" />
        </pattern>
        <pattern id={`${id}-duty`} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
          <path d="M0 0V7" stroke="var(--hair)" strokeWidth="0.8" opacity="0.55" />
        </pattern>
      </defs>
      {radar.map((s) => (
        <rect
          key={s.lowMhz}
          x={scale.x(s.lowMhz)}
          y={18}
          width={scale.x(s.highMhz) - scale.x(s.lowMhz)}
          height={height - 18}
          fill="var(--shade-1)"
        />
      ))}
      <RulesSkyline pair={pair} hub={hub} scale={scale} width={width} duty={`${id}-duty`} />
      <path d={`M0 ${RULES_PX}H${width}`} stroke="var(--hair)" />
      <HeardStrip open={open} x={scale.x} y={RULES_PX} width={width} />
      <path d={`M0 ${RULES_PX + HEARD_PX}H${width}`} stroke="var(--ink)" />
      {shown.map((m, i) => (
        <Mast
          key={m.siteId ?? "alone"}
          open={open}
          mast={m}
          y={mastTops[i]!}
          width={width}
          scale={scale}
          meet={`${id}-meet`}
          proposed={proposed}
          plan={plan}
        />
      ))}
      {folded.length > 0 && (
        <text x={14} y={at + 13} fontSize={TYPE.note} style={{ fill: "var(--ink-2)" }}>
          {folded.length === 1 ? "One more mast" : `${folded.length} more masts`}: {folded.map((m) => m.name).join(", ")}
        </text>
      )}
      <path d={`M0 ${noiseTop}H${width}`} stroke="var(--ink)" />
      <NoisePanel
        receivers={atSame(open, receiver)}
        receiver={receiver}
        choose={open.setReceiver}
        x={scale.x}
        y={noiseTop}
        width={width}
        names={names}
        hatch={`${id}-meet`}
        builtName={(r) => built.job.field.radios[r.air.receiver]!.name}
      />
    </svg>
  );
};

/** Receivers of one mast and band, the one that is looked at among them. */
const atSame = (open: OpenAir, receiver: Receiver | null): Receiver[] =>
  receiver === null
    ? []
    : open.view.receivers.filter(
        (r) => r.siteId === receiver.siteId && bandKeyOf(r.channel.centreMhz) === bandKeyOf(receiver.channel.centreMhz),
      );
