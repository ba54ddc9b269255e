"use client";
import type { Brief } from "@/contract";
import { Choice, Field } from "../../controls/field";
import { AddRow, RemoveRow } from "../../controls/rows";

type Item = Brief["inventory"][number];

/** What hangs there already, why the old link failed, and whether the source can feed a new one. */
export const ThereTab = ({ doc, change }: { doc: Brief; change: (fields: Partial<Brief>) => void }) => {
  const set = (id: string, fields: Partial<Item>): void =>
    change({ inventory: doc.inventory.map((i) => (i.id === id ? { ...i, ...fields } : i)) });
  return (
    <div className="grid gap-5">
      <section aria-label="Source check">
        <h2 className="m-0 border-b border-ink pb-1 text-part font-bold">Source</h2>
        <div className="fields-row grid grid-cols-3 gap-x-5 pt-2">
          <Choice
            label="A free port on the router"
            value={doc.source.freePort}
            onChange={(e) => change({ source: { ...doc.source, freePort: e.target.value as Brief["source"]["freePort"] } })}
          >
            <option value="unknown">not looked at yet</option>
            <option value="yes">yes</option>
            <option value="no">no</option>
          </Choice>
          <Choice
            label="Speed the port agreed on"
            value={doc.source.negotiated}
            onChange={(e) => change({ source: { ...doc.source, negotiated: e.target.value as Brief["source"]["negotiated"] } })}
          >
            {["unknown", "10 Mbps", "100 Mbps", "1 Gbps", "2.5 Gbps", "10 Gbps"].map((v) => (
              <option key={v} value={v}>
                {v}
              </option>
            ))}
          </Choice>
          <Field
            label="Adapter or switch it needs"
            value={doc.source.adapter}
            maxLength={200}
            onChange={(e) => change({ source: { ...doc.source, adapter: e.target.value } })}
          />
        </div>
        {(doc.source.negotiated === "100 Mbps" || doc.source.negotiated === "10 Mbps") && (
          <p className="m-0 mt-2 text-short-figure">
            The port holds everything behind it to {doc.source.negotiated}. Look for a bad cable, or another port.
          </p>
        )}
      </section>
      <section aria-label="What is there already">
        <h2 className="m-0 border-b border-ink pb-1 text-part font-bold">What is there already</h2>
        <ol className="m-0 list-none p-0">
          {doc.inventory.map((i) => (
            <li key={i.id} className="grid grid-cols-[2fr_2fr_1fr_28px] items-end gap-x-4 border-b border-rule py-1.5">
              <Field
                label="What"
                value={i.what}
                maxLength={200}
                placeholder="old dish, 20 m of cable, bracket"
                onChange={(e) => set(i.id, { what: e.target.value })}
              />
              <Field label="Where" value={i.where} maxLength={200} onChange={(e) => set(i.id, { where: e.target.value })} />
              <Choice label="What becomes of it" value={i.fate} onChange={(e) => set(i.id, { fate: e.target.value as Item["fate"] })}>
                <option value="keep">keep</option>
                <option value="move">move</option>
                <option value="remove">remove</option>
                <option value="spare">spare</option>
              </Choice>
              <RemoveRow
                label={`Take ${i.what || "the row"} off the list`}
                onClick={() => change({ inventory: doc.inventory.filter((x) => x.id !== i.id) })}
              />
            </li>
          ))}
        </ol>
        <AddRow
          disabled={doc.inventory.length >= 200}
          onClick={() =>
            change({ inventory: [...doc.inventory, { id: crypto.randomUUID().slice(0, 8), what: "", where: "", fate: "keep" }] })
          }
        >
          Add a thing
        </AddRow>
      </section>
      <div className="grid grid-cols-2 gap-x-5">
        <Choice
          label="Why the old link failed"
          value={doc.oldFailure}
          onChange={(e) => change({ oldFailure: e.target.value as Brief["oldFailure"] })}
        >
          <option value="none">there was none, or it works</option>
          <option value="water">water</option>
          <option value="surge">surge or lightning</option>
          <option value="cable">cable</option>
          <option value="crowding">crowded air</option>
          <option value="trees">trees grew</option>
          <option value="other">something else</option>
        </Choice>
        <Field
          label="The customer's own Wi-Fi channels"
          value={doc.wifiChannels}
          maxLength={300}
          placeholder="6 in the office, 36 to 48 upstairs"
          onChange={(e) => change({ wifiChannels: e.target.value })}
        />
        {doc.oldFailure !== "none" && (
          <label className="field col-span-2 mt-2">
            <span>What was found</span>
            <textarea
              rows={2}
              maxLength={1000}
              className="border border-rule bg-paper p-1.5"
              value={doc.oldFailureNote}
              onChange={(e) => change({ oldFailureNote: e.target.value })}
            />
          </label>
        )}
      </div>
    </div>
  );
};
