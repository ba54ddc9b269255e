"use client";
import { useRouter, useSearchParams } from "next/navigation";
import { useEffect, useMemo, useRef, useState } from "react";
import type { SiteDto } from "@/contract";
import { bearingsBetween, declination, type LatLon, utmCrsOf } from "@/core/geo";
import { ApiError } from "../../api/client";
import { useJob, useRefresh, useVerdicts } from "../../api/queries";
import { Choice } from "../../controls/field";
import { Sheet, UnitsButton } from "../../frame/sheet";
import { Trouble } from "../../frame/trouble";
import { createGroundMap, type GroundMap, type MapMode } from "../../map/ground-map";
import { VerdictMark } from "../../marks/verdict-mark";
import { usePreferences } from "../../state/preferences";
import { errorSentence } from "../../wording/errors";
import { bearingText, distanceText, lengthText } from "../../wording/numbers";
import { VERDICT_ORDER, VERDICT_WORD } from "../../wording/verdicts";
import { BasisDialog } from "../basis/basis-dialog";
import { jobIndex } from "../job-index";
import { ChosenLink, LinkList } from "./link-list";
import { SiteForm, type SiteValues } from "./site-form";
import { useGroundEdits } from "./use-ground-edits";

const MODES: readonly { mode: MapMode; name: string; hint: string; key: string }[] = [
  { mode: "look", name: "Look", hint: "Press a link or a site. Drag to move the sheet, wheel to zoom.", key: "L" },
  { mode: "place", name: "Place a site", hint: "Press where the site stands, or type its position.", key: "P" },
  { mode: "join", name: "Join two sites", hint: "Press the near end, then the far end; or choose both in the list.", key: "J" },
  { mode: "move", name: "Move a site", hint: "Drag a site to where it stands, or press it and type its position.", key: "M" },
];
const KEYS = [
  ...MODES.map((m) => ({ keys: m.key, does: m.name })),
  { keys: "F", does: "Fit the chosen link" },
  { keys: "Arrows, + and −", does: "Move and zoom, on the drawing" },
  { keys: "Esc", does: "Back to looking" },
];

type Panel =
  | { readonly kind: "links" }
  | { readonly kind: "site"; readonly siteId: string }
  | { readonly kind: "new"; readonly at: LatLon | null };

export const GroundSheet = ({ jobId }: { jobId: string }) => {
  const job = useJob(jobId);
  const verdicts = useVerdicts(jobId);
  const { units, mode: colourMode } = usePreferences();
  const refresh = useRefresh();
  const router = useRouter();
  const search = useSearchParams();
  const asked = search.get("link");
  const [mode, setMode] = useState<MapMode>("look");
  const [panel, setPanel] = useState<Panel>({ kind: "links" });
  const [joinFromId, setJoinFromId] = useState<string | null>(null);
  const [joinToId, setJoinToId] = useState("");
  const [reach, setReach] = useState<{ from: LatLon; to: LatLon } | null>(null);
  const [knowledge, setKnowledge] = useState<{
    datasets: readonly { name: string; cellM: number; sigmaM: number }[];
    intervalM: number;
  } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [mapTrouble, setMapTrouble] = useState<unknown>(null);
  const target = useRef<HTMLDivElement>(null);
  const map = useRef<GroundMap | null>(null);

  const say = (error: unknown): void => setFault(errorSentence(error instanceof ApiError ? error.body : { code: "internal" }, units));
  const data = job.data;
  const sites = data?.sites ?? [];
  const edits = useGroundEdits(jobId, [...sites, ...(data?.links ?? [])], say);
  const { stack, changeSite } = edits;
  const rows = useMemo(() => verdicts.data ?? [], [verdicts.data]);
  const selectedId = rows.some((l) => l.linkId === asked)
    ? asked
    : (VERDICT_ORDER.flatMap((v) => rows.filter((l) => l.verdict === v && l.clearanceVerdict === v))[0]?.linkId ?? rows[0]?.linkId ?? null);
  const selected = rows.find((l) => l.linkId === selectedId);
  const selectedLink = data?.links.find((l) => l.id === selectedId);

  const chooseLink = (linkId: string): void => {
    setPanel({ kind: "links" });
    router.replace(`/jobs/${jobId}/ground?link=${linkId}`, { scroll: false });
  };

  const addSite = async (values: SiteValues): Promise<void> => {
    await edits.addSite(values);
    setMode("look");
    setPanel({ kind: "links" });
  };
  const removeSite = async (site: SiteDto): Promise<void> => {
    await edits.removeSite(site);
    setPanel({ kind: "links" });
  };
  const join = async (nearSiteId: string, farSiteId: string): Promise<void> => {
    setFault(null);
    try {
      const linkId = await edits.join(nearSiteId, farSiteId);
      setMode("look");
      setJoinFromId(null);
      setJoinToId("");
      chooseLink(linkId);
    } catch (error) {
      say(error);
    }
  };
  const takeLinkAway = (linkId: string): void => {
    edits.removeLink(linkId).catch(say);
  };

  // The drawing calls back into whatever stands here now.
  const events = {
    onLink: chooseLink,
    onSite: (siteId: string): void => {
      if (mode !== "join") setPanel({ kind: "site", siteId });
      else if (joinFromId === null) setJoinFromId(siteId);
      else void join(joinFromId, siteId);
    },
    onPlace: (at: LatLon): void => setPanel({ kind: "new", at }),
    onMoved: (siteId: string, at: LatLon): void => {
      const site = sites.find((s) => s.id === siteId);
      if (site === undefined) return;
      setFault(null);
      changeSite(site, { latDeg: at.latDeg, lonDeg: at.lonDeg }).catch((error: unknown) => {
        say(error);
        void refresh(jobId);
      });
    },
  };
  const eventsRef = useRef(events);
  eventsRef.current = events;

  const ready = data !== undefined;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the map is made once for a job
  useEffect(() => {
    if (!ready || target.current === null) return;
    const centre = { latDeg: data.job.centreLatDeg, lonDeg: data.job.centreLonDeg };
    const made = createGroundMap(target.current, jobId, utmCrsOf(centre), centre, asked !== null, {
      onLink: (id) => eventsRef.current.onLink(id),
      onSite: (id) => eventsRef.current.onSite(id),
      onPlace: (at) => eventsRef.current.onPlace(at),
      onMoved: (id, at) => eventsRef.current.onMoved(id, at),
      onReach: (from, to) => setReach(from === null || to === null ? null : { from, to }),
      onKnowledge: (datasets, intervalM) => setKnowledge({ datasets, intervalM }),
      onTrouble: setMapTrouble,
    });
    map.current = made;
    return () => {
      made.dispose();
      map.current = null;
    };
  }, [ready, jobId]);

  useEffect(() => {
    if (data === undefined) return;
    map.current?.setData({
      sites: data.sites,
      verdicts: rows,
      links: data.links,
      selectedLinkId: selectedId,
      joinFromId: mode === "join" ? joinFromId : null,
    });
  }, [data, rows, selectedId, joinFromId, mode]);
  useEffect(() => map.current?.setMode(mode), [mode]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a change of colours is what redraws
  useEffect(() => map.current?.restyle(), [colourMode]);

  const enter = (next: MapMode): void => {
    setMode(next);
    setFault(null);
    setJoinFromId(null);
    setPanel(next === "place" ? { kind: "new", at: null } : { kind: "links" });
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const typing = event.target instanceof HTMLElement && ["INPUT", "SELECT", "TEXTAREA"].includes(event.target.tagName);
      if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
      const found = MODES.find((m) => m.key === event.key.toUpperCase());
      if (found !== undefined) {
        event.preventDefault();
        enter(found.mode);
      } else if (event.key === "Escape") enter("look");
      else if (event.key.toUpperCase() === "F") map.current?.showSites();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });

  if (data === undefined) {
    return (
      <div className="h-dvh p-2">
        <div className="h-full border-[1.6px] border-ink">
          <Trouble error={job.error ?? job.failureReason} waiting="Reading the job." />
        </div>
      </div>
    );
  }
  const day = new Date(`${data.job.visitOn}T12:00:00Z`);
  const declinationAt = (p: LatLon): number => declination(p, day).declinationDeg;
  const span = reach === null ? null : bearingsBetween(reach.from, reach.to);
  const near = sites.find((s) => s.id === selectedLink?.nearSiteId);
  const far = sites.find((s) => s.id === selectedLink?.farSiteId);
  const openSite = panel.kind === "site" ? sites.find((s) => s.id === panel.siteId) : undefined;
  const finest = knowledge?.datasets[0];
  const joinFrom = sites.find((s) => s.id === joinFromId);

  return (
    <Sheet
      rows={jobIndex(jobId, rows, selectedId)}
      current="Ground"
      undo={stack}
      keys={KEYS}
      actions={[
        ...MODES.map((m) => ({ name: m.name, run: () => enter(m.mode) })),
        ...rows.map((l) => ({
          name: `Open ${l.nearName} to ${l.farName}${l.label === "" ? "" : `, ${l.label}`}`,
          href: `/jobs/${jobId}/section/${l.linkId}`,
        })),
      ]}
      strip={[
        { label: "Job", value: data.job.name, grow: 2 },
        {
          label:
            selected === undefined ? (
              "Link"
            ) : (
              <>
                Link <VerdictMark verdict={selected.verdict} a={7} />{" "}
                <span className={`font-[650] v-${selected.verdict}`}>{VERDICT_WORD[selected.verdict]}</span>
              </>
            ),
          value:
            selected === undefined ? (
              "none yet"
            ) : (
              <>
                <span className="text-near">{selected.nearName}</span> to <span className="text-far">{selected.farName}</span>
              </>
            ),
          grow: 2.5,
        },
        { label: "Sheet", value: "02 Ground", grow: 1 },
        { label: "Day of visit", value: data.job.visitOn, grow: 1 },
        { label: "Units", value: <UnitsButton />, grow: 0.9 },
        { label: "Policy in force", value: <BasisDialog job={data.job} />, grow: 2.3 },
        { label: "Saved", value: fault === null ? "all edits" : "last edit refused", grow: 1.4 },
      ]}
    >
      <div className="grid h-full min-h-0 grid-cols-[minmax(0,1fr)_252px]">
        <div className="relative min-h-0">
          <div
            ref={target}
            tabIndex={0}
            role="application"
            aria-label="Ground: plan drawing. Arrow keys move it, plus and minus zoom."
            className="map absolute inset-0"
            data-testid="map"
          />
          <div className="absolute left-0 top-0 border-b border-r border-ink bg-paper px-4 py-2">
            <h1 className="m-0 text-[24px] font-[720] leading-7">Ground</h1>
            <p className="cap m-0">
              {knowledge === null
                ? "Drawing the ground."
                : finest === undefined
                  ? "No terrain is known here: paths stay Unknown."
                  : `Contours every ${lengthText(units, knowledge.intervalM, units === "metric" ? 0 : 1)}; ${finest.name}, ±${lengthText(units, finest.sigmaM, 2)}`}
            </p>
          </div>
          <div
            role="toolbar"
            aria-label="What the pointer does"
            className="no-print absolute bottom-3 left-1/2 flex -translate-x-1/2 border border-ink bg-paper"
          >
            {MODES.map((m) => (
              <button
                key={m.mode}
                type="button"
                aria-pressed={mode === m.mode}
                onClick={() => enter(m.mode)}
                className={`border-r border-ink px-3 py-1.5 text-[14px] last:border-r-0 ${mode === m.mode ? "bg-ink font-bold text-paper" : ""}`}
              >
                {m.name}
              </button>
            ))}
          </div>
          {span !== null && reach !== null && (
            <div className="absolute right-3 top-3 border border-ink bg-paper px-3 py-2" aria-live="polite" data-testid="reach">
              <div className="figure text-[22px] leading-6">{distanceText(units, span.distanceM)}</div>
              <div className="text-[13px]">
                there {bearingText(span.nearDeg)} true, {bearingText(span.nearDeg - declinationAt(reach.from) + 360)} magnetic
              </div>
              <div className="text-[13px]">
                back {bearingText(span.farDeg)} true, {bearingText(span.farDeg - declinationAt(reach.to) + 360)} magnetic
              </div>
            </div>
          )}
          {mapTrouble !== null && (
            <div className="absolute inset-x-10 top-24 border border-short bg-paper">
              <Trouble error={mapTrouble} waiting="" />
            </div>
          )}
        </div>
        <aside aria-label="Links and sites" className="flex min-h-0 flex-col border-l border-ink">
          <p className="cap m-0 border-b border-rule px-3.5 py-2">{MODES.find((m) => m.mode === mode)?.hint}</p>
          {fault !== null && (
            <div role="alert" className="flex gap-2 border-b border-short px-3.5 py-2 text-short-figure">
              <span className="flex-1">{fault}</span>
              <button type="button" className="press" onClick={() => setFault(null)}>
                Close
              </button>
            </div>
          )}
          {mode === "join" && (
            <div className="grid gap-2.5 border-b border-ink px-3.5 py-3">
              <Choice label="Near end" value={joinFromId ?? ""} onChange={(e) => setJoinFromId(e.target.value || null)}>
                <option value="">press a site, or choose</option>
                {sites.map((s) => (
                  <option key={s.id} value={s.id}>
                    {s.name}
                  </option>
                ))}
              </Choice>
              <Choice label="Far end" value={joinToId} onChange={(e) => setJoinToId(e.target.value)}>
                <option value="">press a site, or choose</option>
                {sites.map((s) => (
                  <option key={s.id} value={s.id}>
                    {s.name}
                  </option>
                ))}
              </Choice>
              <JoinFacts from={joinFrom} to={sites.find((s) => s.id === joinToId)} units={units} />
              <button
                type="button"
                className="main-action"
                disabled={joinFromId === null || joinToId === ""}
                onClick={() => joinFromId !== null && void join(joinFromId, joinToId)}
              >
                Join them
              </button>
            </div>
          )}
          {panel.kind === "new" && (
            <div className="border-b border-ink px-3.5 py-3">
              <SiteForm
                key={panel.at === null ? "typed" : `${panel.at.latDeg},${panel.at.lonDeg}`}
                site={null}
                at={panel.at}
                units={units}
                submitName="Place it"
                onSubmit={addSite}
                onCancel={() => enter("look")}
              />
            </div>
          )}
          {openSite !== undefined && (
            <div className="border-b border-ink px-3.5 py-3">
              <SiteForm
                key={`${openSite.id}-${openSite.version}`}
                site={openSite}
                at={null}
                units={units}
                submitName="Keep"
                onSubmit={async (v) => {
                  await changeSite(openSite, v);
                  setPanel({ kind: "links" });
                }}
                onCancel={() => setPanel({ kind: "links" })}
                onDelete={() => removeSite(openSite)}
              />
              <p className="cap m-0 mt-2">{[openSite.structure, openSite.power].filter((x) => x !== "").join("; ")}</p>
            </div>
          )}
          <div className="min-h-0 flex-1 overflow-auto">
            <div className="flex items-baseline justify-between border-b border-ink px-3.5 pb-1 pt-2.5">
              <h2 className="m-0 text-[15px] font-bold">Links</h2>
              <span className="cap">{rows.length === 0 ? "none yet" : `${rows.length}, worst first`}</span>
            </div>
            {verdicts.data === undefined && <Trouble error={verdicts.error ?? verdicts.failureReason} waiting="Judging the links." />}
            <LinkList verdicts={rows} selectedId={selectedId} units={units} choose={(id) => chooseLink(id)} />
            {mode === "look" && panel.kind === "links" && (
              <details className="border-b border-rule px-3.5 py-2">
                <summary className="cursor-pointer text-[15px] font-bold">Sites, {sites.length}</summary>
                {sites.map((s) => (
                  <button
                    key={s.id}
                    type="button"
                    className="block w-full truncate py-[3px] text-left"
                    onClick={() => setPanel({ kind: "site", siteId: s.id })}
                  >
                    {s.name}
                  </button>
                ))}
              </details>
            )}
            {sites.length === 0 && (
              <p className="px-3.5 text-ink-2">No site yet. Choose Place a site and press where the first building stands.</p>
            )}
          </div>
          {selected !== undefined && near !== undefined && far !== undefined && (
            <ChosenLink
              verdict={selected}
              near={near}
              far={far}
              declinationDeg={declinationAt(near)}
              units={units}
              jobId={jobId}
              onTakeAway={() => takeLinkAway(selected.linkId)}
            />
          )}
        </aside>
      </div>
    </Sheet>
  );
};

const JoinFacts = ({ from, to, units }: { from: SiteDto | undefined; to: SiteDto | undefined; units: "metric" | "imperial" }) => {
  if (from === undefined || to === undefined || from.id === to.id) return null;
  const b = bearingsBetween(from, to);
  return (
    <p className="m-0 text-[13px]">
      {distanceText(units, b.distanceM)}, there {bearingText(b.nearDeg)} true, back {bearingText(b.farDeg)}
    </p>
  );
};
