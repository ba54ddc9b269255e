"use client";
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo, useRef, useState } from "react";
import type { HardwareDto, PartDto } from "@/contract";
import { bodyOf, postJson, postText } from "../../api/client";
import { keepFile } from "../../api/keep-file";
import { keys, useHardware, useJob, useParts, useVerdicts } from "../../api/queries";
import { DataTable } from "../../controls/data-table";
import { lazyPart } from "../../controls/lazy-part";
import { Sheet } from "../../frame/sheet";
import { Trouble } from "../../frame/trouble";
import { UnitsButton } from "../../frame/units-button";
import { useJobHistory } from "../../state/job-history";
import { errorSentence } from "../../wording/errors";
import { BasisCell } from "../basis/basis-cell";
import { useJobIndex } from "../job-index";
import { SHEETS } from "../registry";
import type { Shown } from "./data-sheet-dialog";
import { antennaColumns, partColumns, radioColumns } from "./hardware-columns";
import { AntennaForm, RadioForm } from "./hardware-forms";
import { HardwareHistory } from "./hardware-history";
import { PartForm } from "./part-form";
import { StockCell } from "./stock-cell";

const DataSheetDialog = lazyPart(() => import("./data-sheet-dialog").then((m) => m.DataSheetDialog));

const download = (hardware: HardwareDto, parts: readonly PartDto[]): void => {
  const own = {
    radios: hardware.radios.filter((r) => r.source === "own").map(({ source: _s, ...r }) => r),
    antennas: hardware.antennas.filter((a) => a.source === "own").map(({ source: _s, ...a }) => a),
    parts: parts.filter((p) => p.source === "own").map(({ source: _s, ...p }) => p),
  };
  keepFile(new Blob([JSON.stringify(own, null, 1)], { type: "application/json" }), "hardware.json");
};

/** The catalogue and the user's own radios, antennas and parts: by form, or by a file of the same shape. */
export const GearSheet = ({ jobId }: { jobId: string }) => {
  const hardware = useHardware();
  const parts = useParts();
  const job = useJob(jobId);
  const verdicts = useVerdicts(jobId);
  const client = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const [panel, setPanel] = useState<"radio" | "antenna" | "part">("radio");
  const [report, setReport] = useState<{ words: string; faults: readonly { where: string; reason: string }[]; bad: boolean } | null>(null);

  const take = async (text: string): Promise<boolean> => {
    try {
      const done = await postText<{ radios: number; antennas: number; parts: number }>("/api/hardware", text);
      await Promise.all([keys.hardware, keys.parts, keys.hardwareSteps].map((queryKey) => client.invalidateQueries({ queryKey })));
      setReport({
        words: `Taken in: ${done.radios} ${done.radios === 1 ? "radio" : "radios"}, ${done.antennas} ${done.antennas === 1 ? "antenna" : "antennas"}${done.parts === 0 ? "" : `, ${done.parts} ${done.parts === 1 ? "part" : "parts"}`}.`,
        faults: [],
        bad: false,
      });
      return true;
    } catch (error) {
      const body = bodyOf(error);
      setReport({ words: errorSentence(body), faults: body.faults ?? [], bad: true });
      return false;
    }
  };

  const [shown, setShown] = useState<{ readonly kind: "radio" | "antenna"; readonly id: string } | null>(null);
  const mark = useCallback(
    (
      kind: "radio" | "antenna" | "part",
      id: string,
      marks: { readonly stock?: number | null; readonly retired?: boolean },
    ): Promise<void> =>
      postJson<HardwareDto>("/api/hardware/marks", { kind, id, ...marks })
        .then((now) => {
          client.setQueryData(keys.hardware, now);
          return Promise.all([keys.parts, keys.hardwareSteps].map((queryKey) => client.invalidateQueries({ queryKey }))).then(
            () => undefined,
          );
        })
        .catch((error: unknown) => setReport({ words: errorSentence(bodyOf(error)), faults: [], bad: true })),
    [client],
  );
  const columns = useMemo(() => {
    const cell = (
      kind: "radio" | "antenna" | "part",
      row: { readonly id: string; readonly name: string; readonly stock?: number | undefined },
    ) => <StockCell name={row.name} stock={row.stock} count={(stock) => void mark(kind, row.id, { stock })} />;
    const name = (row: { readonly name: string; readonly retired?: boolean | undefined }, show: () => void) => (
      <button type="button" className="min-h-6 text-left underline decoration-hair underline-offset-4" onClick={show}>
        {row.name}
        {row.retired === true ? <span className="cap"> retired</span> : null}
      </button>
    );
    return {
      radios: radioColumns((row) => name(row, () => setShown({ kind: "radio", id: row.id })), cell),
      parts: partColumns((row) => cell("part", row)),
      antennas: antennaColumns((row) => name(row, () => setShown({ kind: "antenna", id: row.id })), cell),
    };
  }, [mark]);
  const index = useJobIndex(jobId, verdicts.data, null);
  const history = useJobHistory(jobId, (error) => setReport({ words: errorSentence(bodyOf(error)), faults: [], bad: true }));
  if (job.data === undefined || hardware.data === undefined) {
    return (
      <div className="h-dvh p-2">
        <div className="h-full border-[1.6px] border-ink">
          <Trouble error={job.error ?? job.failureReason ?? hardware.error ?? hardware.failureReason} waiting="Reading the catalogue." />
        </div>
      </div>
    );
  }
  const { antennas } = hardware.data;
  const openRadio = shown?.kind === "radio" ? hardware.data.radios.find((r) => r.id === shown.id) : undefined;
  const openAntenna = shown?.kind === "antenna" ? antennas.find((a) => a.id === shown.id) : undefined;
  const open: Shown | null =
    openRadio !== undefined ? { kind: "radio", row: openRadio } : openAntenna !== undefined ? { kind: "antenna", row: openAntenna } : null;
  const radios = [...hardware.data.radios].sort((a, b) => Number(a.bandKey) - Number(b.bandKey) || a.name.localeCompare(b.name));
  return (
    <Sheet
      rows={index}
      jobId={jobId}
      of={SHEETS.gear}
      undo={history}
      actions={[{ name: "Bring in a hardware file", run: () => file.current?.click() }]}
      strip={[
        { label: "Job", value: job.data.job.name, grow: 2 },
        { label: "Sheet", value: "", grow: 1 },
        { label: "Radios", value: `${radios.length}, ${radios.filter((r) => r.source === "own").length} own`, grow: 1 },
        { label: "Antennas", value: `${antennas.length}, ${antennas.filter((a) => a.source === "own").length} own`, grow: 1 },
        { label: "Units", value: <UnitsButton />, grow: 1 },
        { label: "Policy in force", value: <BasisCell job={job.data.job} />, grow: 2 },
      ]}
    >
      <div className="panes grid h-full min-h-0 grid-cols-[minmax(0,1fr)_344px]">
        <div className="min-h-0 overflow-auto">
          <header className="flex flex-wrap items-baseline gap-x-6 px-5 pb-2 pt-4">
            <h1 className="m-0 text-title font-heading">Catalogue</h1>
            <span className="cap flex-1">Levels per receive chain, power in all.</span>
            <button type="button" className="press" onClick={() => file.current?.click()}>
              Bring in a file
            </button>
            <button
              type="button"
              className="press"
              disabled={![...radios, ...antennas, ...(parts.data ?? [])].some((x) => x.source === "own")}
              onClick={() => download(hardware.data, parts.data ?? [])}
            >
              Save own as a file
            </button>
            <input
              ref={file}
              type="file"
              accept="application/json,.json,text/csv,.csv"
              className="sr-only"
              tabIndex={-1}
              aria-label="Hardware file"
              onChange={async (e) => {
                const chosen = e.target.files?.[0];
                e.target.value = "";
                if (chosen !== undefined) await take(await chosen.text());
              }}
            />
          </header>
          {report !== null && (
            <div
              role={report.bad ? "alert" : "status"}
              className={`mx-5 mb-3 border px-3 py-2 ${report.bad ? "border-short" : "border-ink"}`}
            >
              <p className={`m-0 ${report.bad ? "text-short-figure" : ""}`}>{report.words}</p>
              {report.faults.length > 0 && (
                <ul className="m-0 mt-1 list-none p-0 text-line">
                  {report.faults.map((f) => (
                    <li key={f.where + f.reason}>
                      <span className="font-mono">{f.where}</span>: {f.reason}
                    </li>
                  ))}
                </ul>
              )}
            </div>
          )}
          <DataTable label="Radios" rows={radios} columns={columns.radios} />
          <div className="h-6" />
          <DataTable label="Antennas" rows={antennas} columns={columns.antennas} />
          <div className="h-6" />
          {parts.data !== undefined && <DataTable label="Parts" rows={parts.data} columns={columns.parts} />}
        </div>
        <aside aria-label="Own hardware" className="min-h-0 overflow-auto border-l border-ink px-5 py-4">
          <div className="mb-3 flex gap-5">
            {(["radio", "antenna", "part"] as const).map((name) => (
              <button
                key={name}
                type="button"
                aria-pressed={panel === name}
                onClick={() => setPanel(name)}
                className={`border-b-[3px] pb-1 text-press ${panel === name ? "border-ink font-bold" : "border-transparent"}`}
              >
                Own {name}
              </button>
            ))}
          </div>
          {panel === "radio" && <RadioForm radios={radios} take={take} />}
          {panel === "antenna" && <AntennaForm take={take} />}
          {panel === "part" && <PartForm take={take} faults={report?.faults ?? []} />}
          <HardwareHistory />
        </aside>
      </div>
      {open !== null && (
        <DataSheetDialog
          key={open.row.id}
          open
          onOpenChange={() => setShown(null)}
          shown={open}
          take={take}
          retire={(retired) => void mark(open.kind, open.row.id, { retired })}
        />
      )}
    </Sheet>
  );
};
