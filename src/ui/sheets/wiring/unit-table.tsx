"use client";
import type { JudgedSite } from "@/contract";
import { VerdictMark } from "../../marks/verdict-mark";
import { figure, lengthIn, lengthUnit } from "../../wording/numbers";
import { supplyText, voltsText } from "../../wording/wiring";
import type { OpenWiring } from "./use-open-wiring";
import { placesOfLink, unitRows } from "./wiring-view";

/** Units of one end: address, network, what each is plugged into, metres, what reaches it. */
export const UnitTable = ({ open, site }: { open: OpenWiring; site: JudgedSite }) => {
  const { shown, others } = placesOfLink(site.judged.wired, open.linkId);
  const rows = unitRows(site, shown);
  const { addressFields: addresses } = open;
  const netOf = (key: string | undefined): string => {
    const net = addresses.nets.find((n) => n.key === key);
    return net === undefined ? "" : `${net.vlan === null ? "" : `${net.vlan} `}${net.name}`;
  };
  const isNear = site.siteId === open.near.siteId;
  return (
    <div className="min-w-0 overflow-x-auto">
      <table
        className="w-full border-collapse text-line"
        aria-label={`Units at ${open.job.sites.find((s) => s.id === site.siteId)?.name}`}
        data-testid={`units-${isNear ? "near" : "far"}`}
      >
        <thead>
          <tr className="text-left text-label text-ink-2 [&>th]:pr-2 [&>th]:font-said">
            <th>Unit</th>
            <th>Address</th>
            <th>Network</th>
            <th>Plugged into</th>
            <th className="text-right">{lengthUnit(open.fieldUnits)}</th>
            <th>Supply</th>
            <th className="text-right">V there</th>
            <th className="text-right">W</th>
            <th className="text-right">Mbps</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => {
            const given = addresses.given[r.place.id];
            const isBad = r.verdict === "short";
            const isChosen = open.chosen?.id === r.place.id;
            return (
              <tr
                key={r.place.id}
                className={`border-t border-rule align-baseline [&>td]:pr-2 ${isBad ? "v-short" : ""} ${isChosen ? "bg-zone" : ""}`}
                data-unit={r.place.name}
              >
                <td className="whitespace-nowrap">
                  {r.verdict !== "clear" && <VerdictMark verdict={r.verdict} a={6} />}{" "}
                  <button
                    type="button"
                    className="press min-h-6 text-line"
                    aria-pressed={isChosen}
                    title={r.type}
                    onClick={() => open.setChosen({ siteId: site.siteId, kind: "place", id: r.place.id })}
                  >
                    {r.place.name}
                  </button>
                </td>
                <td className="font-mono">{given?.address ?? ""}</td>
                <td>{netOf(given?.net)}</td>
                <td>
                  {r.into === null ? (
                    <span className="v-unknown">nothing</span>
                  ) : (
                    <button
                      type="button"
                      className="press min-h-6 text-line"
                      aria-label={`the lead of ${r.place.name}`}
                      onClick={() => open.setChosen({ siteId: site.siteId, kind: "lead", id: r.into!.lead.id })}
                    >
                      {r.into.name} {r.into.port}
                    </button>
                  )}
                </td>
                <td className="text-right font-mono">{r.metres === null ? "" : figure(lengthIn(open.fieldUnits, r.metres), 1)}</td>
                <td>
                  {r.arrival === null
                    ? r.watts === null && r.into !== null && r.metres === null
                      ? "mains"
                      : ""
                    : supplyText(r.arrival.gives.key)}
                </td>
                <td className="text-right font-mono">
                  {r.arrival === null ? "" : r.arrival.volts === null ? "?" : voltsText(r.arrival.volts).replace(" V", "")}
                </td>
                <td className="text-right font-mono">{r.watts === null ? "" : figure(r.watts, 1)}</td>
                <td className="text-right font-mono">{r.mbps === null ? "" : figure(r.mbps)}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {others > 0 && (
        <p className="cap m-0 mt-1">
          {others === 1 ? "One more radio hangs here" : `${others} more radios hang here`}, on the pages of their links.
        </p>
      )}
    </div>
  );
};
