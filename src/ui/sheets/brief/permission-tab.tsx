"use client";
import { type Brief, PERMISSIONS, type Permission } from "@/contract";
import { PERMISSION_WORDS } from "./open-points";

/** What must be allowed, and by whom; open ones keep the job from looking finished. */
export const PermissionTab = ({ doc, change }: { doc: Brief; change: (fields: Partial<Brief>) => void }) => {
  const of = (key: Permission["key"]): Permission =>
    doc.permissions.find((p) => p.key === key) ?? { key, state: "open", who: "", note: "" };
  const set = (key: Permission["key"], fields: Partial<Permission>): void =>
    change({ permissions: PERMISSIONS.map((k) => (k === key ? { ...of(k), ...fields } : of(k))) });
  return (
    <div>
      <p className="cap m-0 mb-2">Ask early. Local codes, the authority and the regulator decide; this list only remembers.</p>
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b border-ink text-left text-note text-ink-2 [&>th]:py-1 [&>th]:pr-3 [&>th]:font-normal">
            <th scope="col">What</th>
            <th scope="col" className="w-[132px]">
              How it stands
            </th>
            <th scope="col" className="w-[150px]">
              Who
            </th>
            <th scope="col" className="w-[220px]">
              Answer
            </th>
          </tr>
        </thead>
        <tbody>
          {PERMISSIONS.map((key) => {
            const p = of(key);
            const { title, ask } = PERMISSION_WORDS[key];
            return (
              <tr key={key} className="border-b border-rule [&>td]:py-1.5 [&>td]:pr-3">
                <td>
                  <b>{title}.</b> {ask}
                </td>
                <td className="field">
                  <select
                    aria-label={`${title}: how it stands`}
                    value={p.state}
                    onChange={(e) => set(key, { state: e.target.value as Permission["state"] })}
                  >
                    <option value="open">open</option>
                    <option value="asked">asked</option>
                    <option value="granted">granted</option>
                    <option value="refused">refused</option>
                    <option value="not-needed">not needed</option>
                  </select>
                </td>
                <td>
                  <span className="field">
                    <input aria-label={`${title}: who`} value={p.who} maxLength={120} onChange={(e) => set(key, { who: e.target.value })} />
                  </span>
                </td>
                <td>
                  <span className="field">
                    <input
                      aria-label={`${title}: answer`}
                      value={p.note}
                      maxLength={500}
                      onChange={(e) => set(key, { note: e.target.value })}
                    />
                  </span>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
};
