"use client";
import { useState } from "react";
import type { SiteDto } from "@/contract";
import { HIGHEST_TYPED_MOUNT_M } from "@/core/link";
import { Choice } from "../../controls/field";
import { UnitField } from "../../controls/unit-field";
import { figure, lengthText, type Units } from "../../wording/numbers";

export interface ViewQuestion {
  readonly siteId: string;
  /** Null: the site's own mount. */
  readonly mountId: string | null;
  readonly aglM: number;
  readonly targetAglM: number;
}

export interface Seen {
  readonly kind: "seen";
  readonly seenShare: number;
  readonly stepM: number;
  readonly places: readonly { readonly name: string; readonly spareM: number | null }[];
  /** What was left out; null when nothing was. */
  readonly without: string | null;
}

export type ViewState =
  | { readonly kind: "none" }
  | { readonly kind: "busy"; readonly share: number }
  | { readonly kind: "fault"; readonly words: string }
  | Seen;

/** What can be seen from a mount over the ground in view, and how much higher would do for what cannot. */
export const ViewPanel = ({
  sites,
  units,
  state,
  onLook,
  onStop,
  onClear,
}: {
  sites: readonly SiteDto[];
  units: Units;
  state: ViewState;
  onLook: (q: ViewQuestion) => void;
  onStop: () => void;
  onClear: () => void;
}) => {
  const [siteId, setSiteId] = useState(sites[0]?.id ?? "");
  const [mountId, setMountId] = useState<string | null>(null);
  const [typedM, setTypedM] = useState<number | null>(null);
  const [targetM, setTargetM] = useState<number | null>(4);
  const site = sites.find((s) => s.id === siteId);
  const mount = site?.mountingPoints.find((m) => m.id === mountId);
  const aglM = typedM ?? mount?.aglM ?? site?.mountAglM ?? 6;
  return (
    <div className="grid gap-2.5">
      <Choice
        label="From"
        value={siteId}
        onChange={(e) => {
          setSiteId(e.target.value);
          setMountId(null);
          setTypedM(null);
        }}
      >
        {sites.map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}
          </option>
        ))}
      </Choice>
      {(site?.mountingPoints.length ?? 0) > 0 && (
        <Choice
          label="Mounting point"
          value={mountId ?? ""}
          onChange={(e) => {
            setMountId(e.target.value === "" ? null : e.target.value);
            setTypedM(null);
          }}
        >
          <option value="">its mount, {lengthText(units, site?.mountAglM ?? 0)}</option>
          {site?.mountingPoints.map((m) => (
            <option key={m.id} value={m.id}>
              {m.name}, {lengthText(units, m.aglM)}
            </option>
          ))}
        </Choice>
      )}
      <div className="grid grid-cols-2 gap-3">
        <UnitField label="Eye above ground" quantity="height" value={aglM} onChange={setTypedM} most={HIGHEST_TYPED_MOUNT_M} />
        <UnitField
          label="Looking for, above ground"
          quantity="height"
          value={targetM}
          allowEmpty={false}
          onChange={setTargetM}
          most={HIGHEST_TYPED_MOUNT_M}
        />
      </div>
      <div className="flex items-center gap-4">
        <button
          type="button"
          className="main-action"
          disabled={site === undefined || state.kind === "busy"}
          onClick={() => onLook({ siteId, mountId, aglM, targetAglM: targetM ?? 4 })}
        >
          Look about
        </button>
        {state.kind === "busy" && (
          <button type="button" className="press" onClick={onStop}>
            Stop
          </button>
        )}
        {state.kind === "seen" && (
          <button type="button" className="press" onClick={onClear}>
            Clear it
          </button>
        )}
      </div>
      {state.kind === "busy" && <progress value={state.share} className="w-full" aria-label="Looking about" />}
      {state.kind === "fault" && (
        <p role="alert" className="m-0 text-short-figure">
          {state.words}
        </p>
      )}
      {state.kind === "seen" && (
        <div data-testid="view-answer" aria-live="polite">
          <p className="m-0 mb-2">
            <span aria-hidden="true" className="mr-1.5 inline-block h-3 w-5 border border-ink align-[-2px]" /> seen
            <span
              aria-hidden="true"
              className="ml-3 mr-1.5 inline-block h-3 w-5 border border-ink align-[-2px]"
              style={{ background: "repeating-linear-gradient(45deg, var(--ink) 0 1px, var(--rule) 1px 4px)" }}
            />{" "}
            hidden
            <span
              aria-hidden="true"
              className="ml-3 mr-1.5 inline-block h-3 w-5 border border-ink align-[-2px]"
              style={{ background: "radial-gradient(circle, var(--ink) 1px, transparent 1.2px) 0 0 / 4px 4px" }}
            />{" "}
            unknown
          </p>
          <p className="m-0 mb-2">
            {figure(state.seenShare * 100)} % of the known ground in view is seen. Bare line of sight over cells of{" "}
            {lengthText(units, state.stepM, 1)}: no Fresnel clearance; the section judges that.
          </p>
          <ul className="m-0 list-none p-0">
            {state.places.map((p) => (
              <li key={p.name} className="flex justify-between gap-2 border-b border-rule py-[3px]">
                <span className="truncate">{p.name}</span>
                <span className="flex-none">
                  {p.spareM === null
                    ? "unknown ground"
                    : p.spareM >= 0
                      ? "seen"
                      : `hidden: ${lengthText(units, -p.spareM)} higher would do`}
                </span>
              </li>
            ))}
          </ul>
          {state.without !== null && <p className="cap mb-0 mt-2">{state.without}</p>}
        </div>
      )}
      {sites.length === 0 && <p className="m-0">Place a site first.</p>}
    </div>
  );
};
