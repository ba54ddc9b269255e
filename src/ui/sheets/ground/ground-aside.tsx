"use client";
import Link from "next/link";
import type { SiteDto } from "@/contract";
import { lazyPart } from "../../controls/lazy-part";
import { useOpened } from "../../state/use-opened";
import { AsideHead, hintOf } from "./aside-head";
import { ChosenLink } from "./link-list";
import { LinksPane } from "./links-pane";
import type { OpenGround } from "./use-open-ground";

const GroundPanels = lazyPart(() => import("./ground-panels").then((m) => m.GroundPanels));
const SiteForm = lazyPart(() => import("./site-form").then((m) => m.SiteForm));
const JoinForm = lazyPart(() => import("./join-form").then((m) => m.JoinForm));

const NO_SITES: readonly SiteDto[] = [];

/** The form of a site that is new, or that was pressed. */
const SitePane = ({ ground }: { ground: OpenGround }) => {
  const { panel, setPanel, sites, units, edits, knownPlaces } = ground;
  const site = panel.kind === "site" ? sites.find((s) => s.id === panel.siteId) : undefined;
  const [opened, setOpened] = useOpened(site);
  const close = (): void => setPanel({ kind: "links" });
  const ends = site === undefined ? 0 : ground.links.filter((l) => l.nearSiteId === site.id || l.farSiteId === site.id).length;
  if (panel.kind !== "new" && site === undefined) return null;
  return (
    <div className="max-h-[78%] overflow-auto border-b border-ink px-3.5 py-3">
      {panel.kind === "new" ? (
        <SiteForm
          key={panel.at === null ? "typed" : `${panel.at.latDeg},${panel.at.lonDeg}`}
          site={null}
          known={knownPlaces(null)}
          others={sites}
          at={panel.at}
          units={units}
          submitName="Place it"
          onSubmit={async (values) => {
            await edits.addSite(values);
            ground.enter("look");
          }}
          onCancel={() => ground.enter("look")}
        />
      ) : (
        site !== undefined && (
          <SiteForm
            key={site.id}
            site={site}
            known={knownPlaces(site.id)}
            others={NO_SITES}
            at={null}
            units={units}
            submitName="Keep"
            onSubmit={async (values) => {
              await edits.changeSite(opened ?? site, values);
              close();
            }}
            onCancel={close}
            onDelete={async () => {
              await edits.removeSite(site);
              close();
            }}
            onTaken={setOpened}
          />
        )
      )}
      {site !== undefined && ends > 1 && (
        <p className="m-0 mt-2 text-body">
          <Link className="press text-body" href={`/jobs/${ground.jobId}/hub`}>
            As a hub
          </Link>
          <span className="cap"> {ends} links end here</span>
        </p>
      )}
    </div>
  );
};

/** What stands beside the drawing: tools, forms, links and sites, and the chosen link. */
export const GroundAside = ({ ground }: { ground: OpenGround }) => {
  const { panel, mode, units, sites, join, selected, selectedLink, near, far, edits } = ground;
  const showLinks = ["links", "site", "new"].includes(panel.kind) && mode !== "measure" && mode !== "view";
  const wide = panel.kind !== "links" || mode === "measure" || mode === "view";
  return (
    <aside
      aria-label="Links and sites"
      className={`flex min-h-0 flex-col border-l border-ink bg-paper ${wide ? "min-[900px]:absolute min-[900px]:inset-y-0 min-[900px]:right-0 min-[900px]:z-10 min-[900px]:w-[330px]" : ""}`}
    >
      <AsideHead
        open={panel.kind}
        wide={wide}
        toggle={(kind) => (panel.kind === kind ? ground.enter("look") : ground.openDrawer(kind))}
        hint={hintOf(mode)}
        fault={ground.fault}
        forget={() => ground.setFault(null)}
      />
      {mode === "join" && (
        <JoinForm
          sites={sites}
          units={units}
          fromId={join.fromId}
          toId={join.toId}
          setFrom={join.setFrom}
          setTo={join.setTo}
          onJoin={(near, far) => void join.make(near, far)}
        />
      )}
      <SitePane ground={ground} />
      <GroundPanels ground={ground} />
      <LinksPane ground={ground} shown={showLinks} />
      {showLinks && selected !== undefined && near !== undefined && far !== undefined && (
        <ChosenLink
          verdict={selected}
          near={near}
          far={far}
          declinationDeg={ground.declinationAt(near)}
          units={units}
          jobId={ground.jobId}
          told={selectedLink?.groundTold ?? null}
          onTell={() => ground.setPanel({ kind: "told" })}
          onTakeAway={() => void edits.removeLink(selected.linkId).catch(ground.say)}
        />
      )}
    </aside>
  );
};
