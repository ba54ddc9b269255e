"use client";
import { Popover } from "radix-ui";
import { type ReactNode, useState } from "react";
import { type Limits, POWER_SCHOOLS, type SearchLimits, SUPPLY_KINDS } from "@/contract";
import { BAND_KEYS } from "@/core/radio";
import { Choice } from "../../../controls/field";
import { NumberField } from "../../../controls/number-field";
import { useOpen } from "../../../state/me";
import { bandText, SCHOOL_WORDS, supplyText } from "../../../wording/gear";
import type { Units } from "../../../wording/numbers";
import { faceFrom, faceIn } from "./face-text";
import { type LimitWords, limitWords } from "./limit-words";
import { hasOwn, searchOf, siteLimitsOf, withSearch, withSite } from "./limits-of";

const MOST_FACE_CM = 1000;
/** What one type may cost more, until somebody says. */
const USUAL_DEARER_EUR = 300;

export interface Ends {
  readonly nearSiteId: string;
  readonly nearName: string;
  readonly farSiteId: string;
  readonly farName: string;
}

interface Editing {
  readonly limits: Limits;
  readonly linkId: string;
  readonly ends: Ends;
  readonly families: readonly string[];
  readonly change: (fields: Partial<Limits>) => void;
}

const Tick = ({ label, checked, onChange }: { label: ReactNode; checked: boolean; onChange: (on: boolean) => void }) => (
  <label className="flex min-h-7 items-center gap-2 text-line">
    <input type="checkbox" className="h-6 w-6 accent-(--ink)" checked={checked} onChange={(e) => onChange(e.target.checked)} />
    {label}
  </label>
);

/** Both ends' limits of one kind, each under the name of its site. */
const BothEnds = ({ of, children }: { of: Editing; children: (siteId: string, name: string) => ReactNode }) => (
  <>
    {[[of.ends.nearSiteId, of.ends.nearName] as const, [of.ends.farSiteId, of.ends.farName] as const].map(([siteId, name]) => (
      <div key={siteId}>{children(siteId, name)}</div>
    ))}
    <p className="cap m-0">Kept with the site: every link there reads it.</p>
  </>
);

const SiteFields = ({ of }: { of: Editing }) => (
  <BothEnds of={of}>
    {(siteId, name) => {
      const site = siteLimitsOf(of.limits, siteId);
      return (
        <fieldset aria-label={name}>
          <div className="text-line font-figure">{name}</div>
          <Tick
            label="any supply"
            checked={site.supplies === null}
            onChange={(any) => of.change(withSite(of.limits, siteId, { supplies: any ? null : ["802.3at"] }))}
          />
          {site.supplies !== null &&
            SUPPLY_KINDS.map((k) => (
              <Tick
                key={k}
                label={supplyText(k)}
                checked={site.supplies!.includes(k)}
                onChange={(on) =>
                  of.change(withSite(of.limits, siteId, { supplies: on ? [...site.supplies!, k] : site.supplies!.filter((x) => x !== k) }))
                }
              />
            ))}
          <NumberField
            label="Pole"
            unit="mm"
            optional
            value={site.poleMm}
            least={10}
            most={600}
            onChange={(poleMm) => of.change(withSite(of.limits, siteId, { poleMm }))}
          />
        </fieldset>
      );
    }}
  </BothEnds>
);

const LimitFields = ({ limit, of, units }: { limit: LimitWords["key"]; of: Editing; units: Units }) => {
  const { limits, linkId, change } = of;
  const own = hasOwn(limits, linkId, [...(FIELDS[limit] ?? [])]);
  const s = searchOf(limits, linkId);
  const set = (fields: Partial<SearchLimits>): void => change(withSearch(limits, linkId, fields, own));
  const number = (
    label: string,
    key: "priceMost" | "portLeastMbps" | "coldestC" | "hottestC",
    unit: string,
    least: number,
    most: number,
  ) => <NumberField label={label} unit={unit} optional value={s[key]} least={least} most={most} onChange={(v) => set({ [key]: v })} />;
  switch (limit) {
    case "price":
      return number("At most, both ends", "priceMost", "€", 0, 10_000_000);
    case "port":
      return number("At least", "portLeastMbps", "Mbps", 0, 400_000);
    case "weather":
      return (
        <>
          {number("Coldest day", "coldestC", "°C", -90, 90)}
          {number("Hottest day", "hottestC", "°C", -90, 90)}
        </>
      );
    case "radar":
      return <Tick label="Leave out channels with a radar duty" checked={s.noRadar} onChange={(noRadar) => set({ noRadar })} />;
    case "stock":
      return <Tick label="Both ends from stock" checked={s.stockOnly} onChange={(stockOnly) => set({ stockOnly })} />;
    case "bands":
      return (
        <>
          <Tick label="any band" checked={s.bands === null} onChange={(any) => set({ bands: any ? null : [...BAND_KEYS] })} />
          {BAND_KEYS.map((b) => (
            <Tick
              key={b}
              label={bandText(b)}
              checked={s.bands === null || s.bands.includes(b)}
              onChange={(on) => {
                const now = s.bands ?? [...BAND_KEYS];
                const next = BAND_KEYS.filter((k) => (k === b ? on : now.includes(k)));
                set({ bands: next.length === BAND_KEYS.length ? null : next });
              }}
            />
          ))}
        </>
      );
    case "ends":
      return (
        <>
          <Tick label="One radio for both ends" checked={s.alike} onChange={(alike) => set({ alike })} />
          <Choice
            label="What stays as planned"
            value={s.keep ?? ""}
            onChange={(e) => set({ keep: e.target.value === "near" || e.target.value === "far" ? e.target.value : null })}
          >
            <option value="">neither end</option>
            <option value="near">{of.ends.nearName}</option>
            <option value="far">{of.ends.farName}</option>
          </Choice>
          <Tick
            label="Like for like: bracket, straps, supply, connectors and their place"
            checked={s.likeForLike}
            onChange={(likeForLike) => set({ likeForLike })}
          />
          <Choice label="Family" value={s.family ?? ""} onChange={(e) => set({ family: e.target.value === "" ? null : e.target.value })}>
            <option value="">any family</option>
            {of.families.map((f) => (
              <option key={f}>{f}</option>
            ))}
          </Choice>
        </>
      );
    case "power":
      return (
        <>
          <Choice label="Power" value={s.power} onChange={(e) => set({ power: e.target.value as SearchLimits["power"] })}>
            {POWER_SCHOOLS.map((p) => (
              <option key={p} value={p}>
                {SCHOOL_WORDS[p]}
              </option>
            ))}
          </Choice>
          <NumberField
            label="Level aimed at"
            unit="dBm"
            value={s.targetDbm}
            least={-90}
            most={-20}
            onChange={(v) => v !== null && set({ targetDbm: v })}
          />
        </>
      );
    case "face":
      return (
        <BothEnds of={of}>
          {(siteId, name) => (
            <NumberField
              label={`Largest face at ${name}`}
              unit={units === "metric" ? "cm" : "in"}
              optional
              value={faceIn(units, siteLimitsOf(limits, siteId).faceMostCm)}
              least={1}
              most={faceIn(units, MOST_FACE_CM)}
              onChange={(v) => change(withSite(limits, siteId, { faceMostCm: faceFrom(units, v) }))}
            />
          )}
        </BothEnds>
      );
    case "type":
      return (
        <>
          <Tick
            label="One type for all links of the job"
            checked={limits.oneTypeMost !== null}
            onChange={(on) => change({ oneTypeMost: on ? USUAL_DEARER_EUR : null })}
          />
          {limits.oneTypeMost !== null && (
            <NumberField
              label="Where it costs at most this more"
              unit="€"
              value={limits.oneTypeMost}
              least={0}
              most={10_000_000}
              onChange={(oneTypeMost) => oneTypeMost !== null && change({ oneTypeMost })}
            />
          )}
          <p className="cap m-0">Over the best of each link together. Every link of the job reads it.</p>
        </>
      );
    case "site":
      return <SiteFields of={of} />;
  }
};

const FIELDS: Partial<Readonly<Record<LimitWords["key"], readonly (keyof SearchLimits)[]>>> = {
  price: ["priceMost"],
  bands: ["bands"],
  port: ["portLeastMbps"],
  ends: ["alike", "keep", "likeForLike", "family"],
  radar: ["noRadar"],
  stock: ["stockOnly"],
  weather: ["coldestC", "hottestC"],
  power: ["power", "targetDbm"],
};

/** The limits as one sentence; pressing one opens it in place, and the words read it back. */
export const LimitLine = ({ of, units }: { of: Editing; units: Units }) => {
  const [open, setOpen] = useState<LimitWords["key"] | null>(null);
  const { prices } = useOpen();
  const words = limitWords(of.limits, of.linkId, of.ends, units).filter((w) => prices || w.key !== "price");
  return (
    <p className="m-0 px-4 pb-1.5 text-line leading-6" data-testid="limits">
      Within{" "}
      {words.map((w, i) => {
        const own = hasOwn(of.limits, of.linkId, w.fields);
        return (
          <span key={w.key}>
            <Popover.Root open={open === w.key} onOpenChange={(on) => setOpen(on ? w.key : null)}>
              <Popover.Trigger asChild>
                <button type="button" className="press text-line" data-limit={w.key}>
                  {w.words}
                  {own ? ", this link" : ""}
                </button>
              </Popover.Trigger>
              <Popover.Portal>
                <Popover.Content
                  align="start"
                  sideOffset={6}
                  collisionPadding={8}
                  aria-label={`Limit: ${w.words}`}
                  className="z-20 grid max-h-[70vh] w-[250px] gap-2 overflow-auto border-[1.6px] border-ink bg-paper px-3.5 py-3"
                >
                  <LimitFields limit={w.key} of={of} units={units} />
                  {w.fields.length > 0 && (
                    <Tick
                      label="Only for this link"
                      checked={own}
                      onChange={(on) => {
                        const s = searchOf(of.limits, of.linkId);
                        const now = Object.fromEntries(w.fields.map((f) => [f, s[f]])) as Partial<SearchLimits>;
                        if (on) of.change(withSearch(of.limits, of.linkId, now, true));
                        else {
                          const job = Object.fromEntries(w.fields.map((f) => [f, of.limits[f]])) as Partial<SearchLimits>;
                          of.change(withSearch(of.limits, of.linkId, job, false));
                        }
                      }}
                    />
                  )}
                </Popover.Content>
              </Popover.Portal>
            </Popover.Root>
            {i === words.length - 1 ? "." : ", "}
          </span>
        );
      })}
    </p>
  );
};
