"use client";
import { Trouble } from "../../frame/trouble";
import { LinkList } from "./link-list";
import type { OpenGround } from "./use-open-ground";

/**
 * The links of the job, worst first, and under them its sites.
 * @param shown kept while a form is open, so that its place is not lost.
 */
export const LinksPane = ({ ground, shown }: { ground: OpenGround; shown: boolean }) => {
  const { verdicts, rows, selectedId, units, sites, mode, panel } = ground;
  return (
    <div className={`min-h-0 flex-1 overflow-auto ${shown ? "" : "hidden"}`}>
      <div className="flex items-baseline justify-between border-b border-ink px-3.5 pb-1 pt-2.5">
        <h2 className="m-0 text-press font-bold">Links</h2>
        <span className="cap">{rows.length === 0 ? "none yet" : `${rows.length}, worst first`}</span>
      </div>
      {verdicts.data === undefined && <Trouble error={verdicts.error ?? verdicts.failureReason} waiting="Judging the links." />}
      <LinkList verdicts={rows} selectedId={selectedId} units={units} choose={ground.chooseLink} />
      {mode === "look" && panel.kind === "links" && (
        <details className="border-b border-rule px-3.5 py-2">
          <summary className="cursor-pointer text-press font-bold">Sites, {sites.length}</summary>
          {sites.map((s) => (
            <button
              key={s.id}
              type="button"
              className="block w-full truncate py-[3px] text-left"
              onClick={() => ground.setPanel({ kind: "site", siteId: s.id })}
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
  );
};
