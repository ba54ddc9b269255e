"use client";
import type { Brief, PhotoDto, SiteDto } from "@/contract";
import { Choice, Field } from "../../controls/field";
import { NumberField } from "../../controls/number-field";
import { AddRow, RemoveRow } from "../../controls/rows";
import { PhotoStrip } from "./photo-strip";

type Ask = Brief["photoRequests"][number];

/** Photos of the job, and what the customer is asked to send. */
export const PhotosTab = ({
  jobId,
  doc,
  change,
  sites,
  photos,
}: {
  jobId: string;
  doc: Brief;
  change: (fields: Partial<Brief>) => void;
  sites: readonly SiteDto[];
  photos: readonly PhotoDto[];
}) => {
  const set = (id: string, fields: Partial<Ask>): void =>
    change({ photoRequests: doc.photoRequests.map((r) => (r.id === id ? { ...r, ...fields } : r)) });
  const groundOnly = photos.length > 0 && photos.every((p) => p.fromWhere === "ground");
  return (
    <div className="grid gap-5">
      {groundOnly && (
        <p role="status" className="m-0 border-l-4 border-short pl-3">
          All photos here are from the ground. What an antenna would see is not shown by any: ask for one from its height, with the bearing.
        </p>
      )}
      <PhotoStrip jobId={jobId} photos={photos} sites={sites} siteId={null} />
      <section aria-label="Photos asked for">
        <h2 className="m-0 border-b border-ink pb-1 text-part font-bold">Asked of the customer</h2>
        <ol className="m-0 list-none p-0">
          {doc.photoRequests.map((r) => (
            <li
              key={r.id}
              className="fields-row grid grid-cols-[2.4fr_1fr_84px_1fr_70px_28px] items-end gap-x-4 border-b border-rule py-1.5"
            >
              <Field label="What it should show" value={r.what} maxLength={300} onChange={(e) => set(r.id, { what: e.target.value })} />
              <Choice
                label="At"
                value={r.siteId ?? ""}
                onChange={(e) => set(r.id, { siteId: e.target.value === "" ? null : e.target.value })}
              >
                <option value="">anywhere</option>
                {sites.map((s) => (
                  <option key={s.id} value={s.id}>
                    {s.name}
                  </option>
                ))}
              </Choice>
              <NumberField
                label="Bearing"
                unit="°"
                optional
                value={r.bearingDeg}
                least={0}
                most={360}
                onChange={(v) => set(r.id, { bearingDeg: v })}
              />
              <Field
                label="Asked on"
                type="date"
                value={r.askedOn ?? ""}
                onChange={(e) => set(r.id, { askedOn: e.target.value === "" ? null : e.target.value })}
              />
              <label className="flex h-8 items-center gap-2">
                <input type="checkbox" className="h-6 w-6" checked={r.got} onChange={(e) => set(r.id, { got: e.target.checked })} /> here
              </label>
              <RemoveRow
                label="Take this request away"
                onClick={() => change({ photoRequests: doc.photoRequests.filter((x) => x.id !== r.id) })}
              />
            </li>
          ))}
        </ol>
        <AddRow
          disabled={doc.photoRequests.length >= 100}
          onClick={() =>
            change({
              photoRequests: [
                ...doc.photoRequests,
                {
                  id: crypto.randomUUID().slice(0, 8),
                  siteId: null,
                  what: "From where the antenna would be, towards the other building, with something upright of known height",
                  bearingDeg: null,
                  askedOn: new Date().toISOString().slice(0, 10),
                  got: false,
                },
              ],
            })
          }
        >
          Ask for a photo
        </AddRow>
        <p className="cap mb-0 mt-2">
          Nobody should climb for a photo. A window, a pole with the phone on it, or a neighbour's upper floor will do.
        </p>
      </section>
    </div>
  );
};
