"use client";
import { deepEqual } from "fast-equals";
import Link from "next/link";
import { useEffect, useState } from "react";
import type { SiteDto } from "@/contract";
import { type FarPosition, farFromJob, type LatLon } from "@/core/geo";
import { ApiError } from "../../api/client";
import { useJob, usePhotos, useRefresh } from "../../api/queries";
import { FarQuestion } from "../../controls/far-question";
import { UnitField } from "../../controls/unit-field";
import { Trouble } from "../../frame/trouble";
import { sendEdit } from "../../state/browser-outbox";
import { usePreferences } from "../../state/preferences";
import { errorSentence } from "../../wording/errors";
import { latLonText, lengthText } from "../../wording/numbers";
import { PhotoStrip } from "../brief/photo-strip";

/** What is looked at on the spot; the words are kept with the site. */
const TICKS = [
  "bracket place chosen",
  "behind the cladding known",
  "cable way walked",
  "power point seen",
  "earth point seen",
  "view to the other end",
  "trees and cranes noted",
  "way up is safe",
] as const;
const WORDS = [
  ["structure", "Structure"],
  ["material", "Walls are of"],
  ["power", "Power there"],
  ["cableEntry", "Cable comes in"],
  ["access", "How to get up"],
  ["owner", "Owner"],
] as const;

type Fields = Pick<
  SiteDto,
  | "latDeg"
  | "lonDeg"
  | "mountAglM"
  | "mountMaxAglM"
  | "structure"
  | "material"
  | "power"
  | "cableEntry"
  | "access"
  | "owner"
  | "notes"
  | "ticks"
>;
const FIELDS: readonly (keyof Fields)[] = [
  "latDeg",
  "lonDeg",
  "mountAglM",
  "mountMaxAglM",
  "structure",
  "material",
  "power",
  "cableEntry",
  "access",
  "owner",
  "notes",
  "ticks",
];
const fieldsOf = (s: SiteDto): Fields => Object.fromEntries(FIELDS.map((k) => [k, s[k]])) as unknown as Fields;
const key = (siteId: string): string => `dry-arc.survey.${siteId}`;

const draftOf = (site: SiteDto): Fields => {
  try {
    const kept = JSON.parse(localStorage.getItem(key(site.id)) ?? "null") as Partial<Fields> | null;
    return { ...fieldsOf(site), ...kept };
  } catch {
    return fieldsOf(site);
  }
};

/** The survey on the spot: one site at a time, large targets, nothing lost on reload. */
export const SurveySheet = ({ jobId }: { jobId: string }) => {
  const job = useJob(jobId);
  const [siteId, setSiteId] = useState<string | null>(null);
  const sites = job.data?.sites ?? [];
  const site = sites.find((s) => s.id === siteId);
  return (
    <div className="mx-auto min-h-dvh max-w-[560px] p-3 text-[17px] leading-6">
      <header className="flex items-baseline justify-between border-b-[1.6px] border-ink pb-2">
        <h1 className="m-0 text-[24px] font-[720]">{site?.name ?? "Survey"}</h1>
        {site === undefined ? (
          <Link prefetch={false} href={`/jobs/${jobId}/brief`} className="press text-ink no-underline">
            Brief
          </Link>
        ) : (
          <button type="button" className="press min-h-12" onClick={() => setSiteId(null)}>
            All sites
          </button>
        )}
      </header>
      {job.data === undefined && <Trouble error={job.error ?? job.failureReason} waiting="Reading the job." />}
      {job.data !== undefined && site === undefined && (
        <main>
          <ul className="m-0 list-none p-0">
            {sites.map((s) => (
              <li key={s.id}>
                <button
                  type="button"
                  className="flex min-h-14 w-full items-center justify-between gap-3 border-b border-rule text-left"
                  onClick={() => setSiteId(s.id)}
                >
                  <span className="font-[650]">{s.name}</span>
                  <span className="cap text-[15px]">
                    {s.ticks.length} of {TICKS.length}
                  </span>
                </button>
              </li>
            ))}
          </ul>
          {sites.length === 0 && <p>No site yet. Place one on the Ground sheet.</p>}
        </main>
      )}
      {site !== undefined && <SiteSurvey key={site.id} jobId={jobId} site={site} sites={sites} />}
    </div>
  );
};

type Saved =
  | { readonly kind: "saved" }
  | { readonly kind: "unsaved" }
  | { readonly kind: "saving" }
  | { readonly kind: "fault"; readonly words: string };

const SiteSurvey = ({ jobId, site, sites }: { jobId: string; site: SiteDto; sites: readonly SiteDto[] }) => {
  const { units } = usePreferences();
  const refresh = useRefresh();
  const photos = usePhotos(jobId);
  const [f, setF] = useState<Fields>(() => draftOf(site));
  const [version, setVersion] = useState(site.version);
  const differs = FIELDS.some((k) => !deepEqual(f[k], site[k]));
  const [saved, setSaved] = useState<Saved>({ kind: differs ? "unsaved" : "saved" });
  const [locating, setLocating] = useState<string | null>(null);
  const [farOff, setFarOff] = useState<{ at: LatLon; far: FarPosition } | null>(null);
  useEffect(() => setVersion((v) => Math.max(v, site.version)), [site.version]);
  const set = (fields: Partial<Fields>): void => {
    const next = { ...f, ...fields };
    setF(next);
    setSaved({ kind: "unsaved" });
    localStorage.setItem(key(site.id), JSON.stringify(next));
  };
  const save = async (): Promise<void> => {
    setSaved({ kind: "saving" });
    try {
      const row = await sendEdit<SiteDto>(jobId, "PATCH", `/api/jobs/${jobId}/sites/${site.id}`, { version, ...f }, () =>
        setSaved({ kind: "fault", words: "No connection. Everything is kept on this phone, and is sent by itself when it is back." }),
      );
      setVersion(row.version);
      localStorage.removeItem(key(site.id));
      setSaved({ kind: "saved" });
      await refresh(jobId);
    } catch (error) {
      const body = error instanceof ApiError ? error.body : { code: "internal" };
      if (body.code === "clash") {
        // Theirs is read; mine stays in the form and is sent on the next press.
        await refresh(jobId);
        setVersion((body.current as { version: number }).version);
        setSaved({ kind: "fault", words: "Someone else changed this site. What you typed is still here; press again to keep yours." });
      } else
        setSaved({
          kind: "fault",
          words: errorSentence(body, units),
        });
    }
  };
  const locate = (): void => {
    setLocating("Asking the phone for its position.");
    navigator.geolocation.getCurrentPosition(
      (p) => {
        const at = { latDeg: p.coords.latitude, lonDeg: p.coords.longitude };
        const far = farFromJob(
          at,
          sites.filter((s) => s.id !== site.id),
        );
        if (far !== null) {
          setFarOff({ at, far });
          setLocating(null);
          return;
        }
        set(at);
        setLocating(
          `Position taken, ± ${lengthText(units, p.coords.accuracy, 0)}. Check it on the drawing: a map is often better than a phone beside a wall.`,
        );
      },
      (error) => setLocating(`The phone gave no position: ${error.message || "not allowed"}.`),
      { enableHighAccuracy: true, timeout: 20_000, maximumAge: 0 },
    );
  };
  return (
    <form
      className="grid gap-5 pt-3 [&_input]:min-h-12 [&_input]:text-[17px] [&_select]:min-h-12"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      <section aria-label="Position" className="grid gap-2">
        <p className="m-0 font-mono text-[16px]">{latLonText(f)}</p>
        <button type="button" className="min-h-12 border-[1.6px] border-ink font-[650]" onClick={locate}>
          Take the phone's position
        </button>
        {farOff !== null && (
          <FarQuestion
            far={farOff.far}
            units={units}
            takeMeant={(p) => {
              set(p);
              setFarOff(null);
            }}
            keep={() => {
              set(farOff.at);
              setFarOff(null);
            }}
          />
        )}
        {locating !== null && (
          <p role="status" className="m-0 text-[15px]">
            {locating}
          </p>
        )}
      </section>
      <section aria-label="Heights" className="grid grid-cols-2 gap-4">
        <UnitField
          label="Mount above ground"
          quantity="height"
          value={f.mountAglM}
          allowEmpty={false}
          onChange={(v) => v !== null && set({ mountAglM: v })}
          usual={{ least: 1.5, most: 60 }}
          most={300}
        />
        <UnitField
          label="Highest it carries"
          quantity="height"
          value={f.mountMaxAglM}
          onChange={(v) => set({ mountMaxAglM: v })}
          most={300}
        />
      </section>
      <section aria-label="What was looked at" className="grid">
        {TICKS.map((t) => (
          <label key={t} className="flex min-h-12 items-center gap-3 border-b border-rule">
            <input
              type="checkbox"
              className="!min-h-0 h-7 w-7 flex-none"
              checked={f.ticks.includes(t)}
              onChange={(e) => set({ ticks: e.target.checked ? [...f.ticks, t] : f.ticks.filter((x) => x !== t) })}
            />
            {t}
          </label>
        ))}
      </section>
      <section aria-label="The building" className="grid gap-3">
        {WORDS.map(([k, label]) => (
          <label key={k} className="field">
            <span>{label}</span>
            <input value={f[k]} maxLength={200} onChange={(e) => set({ [k]: e.target.value })} />
          </label>
        ))}
        <label className="field">
          <span>Notes</span>
          <textarea
            rows={3}
            maxLength={4000}
            className="border border-ink bg-paper p-2 text-[17px]"
            value={f.notes}
            onChange={(e) => set({ notes: e.target.value })}
          />
        </label>
      </section>
      <PhotoStrip jobId={jobId} photos={(photos.data ?? []).filter((p) => p.siteId === site.id)} sites={sites} siteId={site.id} />
      <p className="cap m-0 text-[14px]">
        Go up only if you are competent for it, with somebody below; keep clear of power lines; leave it in wind, ice or thunder.
      </p>
      <div className="sticky bottom-0 -mx-3 grid gap-1 border-t-[1.6px] border-ink bg-paper px-3 py-2">
        {saved.kind === "fault" && (
          <p role="alert" className="m-0 text-short-figure">
            {saved.words}
          </p>
        )}
        <button type="submit" className="main-action min-h-14 text-[18px]" disabled={saved.kind === "saved" || saved.kind === "saving"}>
          {saved.kind === "saved" ? "All saved" : saved.kind === "saving" ? "Saving" : `Keep ${site.name}`}
        </button>
      </div>
    </form>
  );
};
