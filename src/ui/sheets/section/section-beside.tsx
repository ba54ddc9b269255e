"use client";
import { lawfulPowers, verdictOf } from "@/core/link";
import { Calm } from "../../controls/calm";
import { ClashNotice } from "../../controls/clash-notice";
import { lazyPart } from "../../controls/lazy-part";
import { useLaid } from "../../state/laid-candidates";
import { AirFinding } from "./air-finding";
import { BesideTabs } from "./beside-tabs";
import { ChainFinding } from "./chain-finding";
import { FindingsColumn } from "./findings-column";
import { GroundWays, StartNote } from "./first-steps";
import { lookedAt, restsOn } from "./section-words";
import type { LinkActions } from "./use-link-actions";
import type { OpenSection } from "./use-open-section";

const ComparePanel = lazyPart(() => import("./compare-panel").then((m) => m.ComparePanel));
const GearPanel = lazyPart(() => import("./gear-panel").then((m) => m.GearPanel));

const Findings = ({ open }: { open: OpenSection }) => {
  const { jobId, bundle, record, units, calm, setBeside } = open;
  return (
    <>
      <ClashNotice
        kind="design"
        status={open.status}
        setAside={open.setAside}
        units={units}
        resolve={record.resolve}
        recall={record.recall}
      />
      <FindingsColumn
        findings={calm.found}
        units={units}
        nearName={bundle.near.name}
        apply={open.apply}
        preview={open.preview}
        chain={
          <>
            {open.inAir !== null && open.aired !== null && (
              <AirFinding jobId={jobId} inAir={open.inAir} verdict={open.aired.verdict} code={open.aired.code} />
            )}
            {open.chain !== null && <ChainFinding jobId={jobId} chain={open.chain} />}
          </>
        }
        start={open.isStart ? <StartNote works={verdictOf(calm.found, "service") !== "short"} look={() => setBeside("gear")} /> : null}
        ways={(code) =>
          code === "ground-unknown" ? <GroundWays jobId={jobId} link={bundle.link} say={open.setSaid} units={units} /> : null
        }
        lookedAt={lookedAt(calm.evaluation)}
        restsOn={restsOn(calm.evaluation)}
      />
    </>
  );
};

const Tabs = ({ open, actions }: { open: OpenSection; actions: LinkActions }) => {
  const { bundle, hardware, units, calm, change } = open;
  const { evaluation, design } = calm;
  const gear = (
    <GearPanel
      rackHref={`/jobs/${open.jobId}/gear/${bundle.link.id}`}
      design={design}
      hardware={hardware}
      nearSite={bundle.near}
      farSite={bundle.far}
      change={change}
      record={() => open.setRecording(true)}
      day={bundle.job.visitOn}
      lawful={evaluation === null ? null : lawfulPowers(evaluation.plan, evaluation.result)}
    />
  );
  const compare = evaluation !== null && (
    <ComparePanel
      design={design}
      evaluation={evaluation}
      kept={bundle.kept}
      laid={open.laid}
      forget={(id) =>
        useLaid.getState().lay(
          bundle.link.id,
          open.laid.filter((l) => l.id !== id),
        )
      }
      compared={open.compared}
      other={open.comparedEvaluation}
      elsewhere={open.elsewhere}
      hardware={hardware}
      units={units}
      keep={actions.keepDesign}
      choose={open.setComparedId}
      take={(fields) => change(fields)}
      drop={actions.dropDesign}
    />
  );
  return (
    <BesideTabs shown={open.beside} show={open.setBeside}>
      {{ findings: <Findings open={open} />, gear, compare }}
    </BesideTabs>
  );
};

/** What stands beside the drawing: findings with their mends, the radios, another design to hold it against. */
export const SectionBeside = ({ open, actions }: { open: OpenSection; actions: LinkActions }) => {
  const { bundle, hardware, units, beside, status, calm, setAside, isStart, compared, comparedEvaluation, elsewhere } = open;
  // How it is kept is looked at only while it clashes.
  const clashing = status.kind === "clash" ? status : null;
  return (
    <Calm of={[bundle, hardware, units, beside, calm, clashing, setAside, isStart, compared, comparedEvaluation, elsewhere, open.laid]}>
      {() => <Tabs open={open} actions={actions} />}
    </Calm>
  );
};
