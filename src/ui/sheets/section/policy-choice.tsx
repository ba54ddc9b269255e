"use client";
import { Popover } from "radix-ui";
import { useState } from "react";
import type { JobDto, PolicyOver } from "@/contract";
import type { WorstPlace } from "@/core/link";
import { type PolicyOutcome, policyOutcomes } from "@/core/solve";
import { NumberField } from "../../controls/number-field";
import { VerdictMark } from "../../marks/verdict-mark";
import { dbmText, lengthText, type Units } from "../../wording/numbers";
import { CLEARANCE_WORD, LEAF_WORD, linkPolicyText, TREES_WORD } from "../../wording/policy";
import { VERDICT_WORD } from "../../wording/verdicts";
import type { Evaluation } from "./use-evaluation";

const wordsOf = ({ change }: PolicyOutcome): string =>
  change.clearance !== undefined
    ? CLEARANCE_WORD[change.clearance]
    : change.trees !== undefined
      ? TREES_WORD[change.trees]
      : LEAF_WORD[change.leaf ?? "in"];

const roomText = (worst: WorstPlace | null, units: Units): string =>
  worst === null ? "" : worst.missM > 0.0005 ? `${lengthText(units, worst.missM)} short` : `${lengthText(units, -worst.missM)} to spare`;

const GROUPS = ["clearance", "trees", "leaf"] as const;
const TITLES = { clearance: "Clearance", trees: "Trees", leaf: "Leaves on the day that counts" } as const;

/** The policy of this link, named on the drawing: every school with what it would say of the same path. */
export const PolicyChoice = ({
  evaluation,
  job,
  over,
  units,
  choose,
}: {
  evaluation: Evaluation;
  job: JobDto;
  over: PolicyOver;
  units: Units;
  choose: (over: PolicyOver) => void;
}) => {
  const [open, setOpen] = useState(false);
  const outcomes = open ? policyOutcomes(evaluation.plan, evaluation.path) : [];
  const ofJob: PolicyOver = { clearance: job.clearancePolicy, kFactor: job.kFactor, trees: job.treePolicy, leaf: job.leafState };
  /** What is the job's own anyway is not kept with the link. */
  const take = (change: PolicyOver): void => {
    const next = { ...over, ...change };
    choose(Object.fromEntries(Object.entries(next).filter(([key, value]) => ofJob[key as keyof PolicyOver] !== value)));
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="press min-w-10 truncate text-line" data-testid="policy">
        {linkPolicyText(evaluation.plan.policy, over)}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={6}
          aria-label="Policy of this link"
          className="z-10 max-h-[78vh] w-[470px] overflow-auto border-[1.6px] border-ink bg-paper px-4 py-3"
        >
          <p className="cap m-0 mb-2">
            What every school says of this path, the rest of the policy as it is. Press one to plan this link by it.
          </p>
          {GROUPS.map((group) => (
            <fieldset key={group} aria-label={TITLES[group]} className="mb-2">
              <h3 className="m-0 border-b border-ink text-body font-bold">{TITLES[group]}</h3>
              {outcomes
                .filter((o) => o.change[group] !== undefined)
                .map((o) => (
                  <button
                    key={wordsOf(o)}
                    type="button"
                    aria-pressed={o.inForce}
                    className={`grid min-h-7 w-full grid-cols-[170px_92px_1fr_auto] items-center gap-2 border-b border-rule px-1 text-left text-line ${o.inForce ? "bg-ink text-paper" : ""}`}
                    onClick={() => take(o.change)}
                  >
                    <span className="font-said">{wordsOf(o)}</span>
                    <span className={`flex items-center gap-1.5 ${o.inForce ? "" : `v-${o.clearanceVerdict}`}`}>
                      <VerdictMark verdict={o.clearanceVerdict} a={7} inverted={o.inForce} />
                      {VERDICT_WORD[o.clearanceVerdict]}
                    </span>
                    <span>{group === "leaf" ? "" : roomText(o.worst, units)}</span>
                    <span className="figure">{o.levelDbm === null ? "" : dbmText(o.levelDbm)}</span>
                  </button>
                ))}
            </fieldset>
          ))}
          <div className="flex items-end justify-between gap-4">
            <div className="w-[120px]">
              <NumberField
                label="k, median"
                value={evaluation.plan.policy.kFactor}
                least={0.3}
                most={10}
                onChange={(k) => {
                  if (k !== null && Math.abs(k - evaluation.plan.policy.kFactor) > 0.005) take({ kFactor: k });
                }}
              />
            </div>
            <button type="button" className="press text-line" disabled={Object.keys(over).length === 0} onClick={() => choose({})}>
              As the job has it
            </button>
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
};
