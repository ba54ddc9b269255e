"use client";
import { useEffect, useState } from "react";
import { type ImportOptions, importOptionsSchema } from "@/contract";
import { getJson } from "../../api/client";
import { Choice, Field } from "../../controls/field";

type Unit = "m" | "ft" | "us-ft";

const UNIT_CHOICES: readonly (readonly [Unit, string])[] = [
  ["m", "metres"],
  ["ft", "feet (international)"],
  ["us-ft", "feet (US survey)"],
];

/** Finds a coordinate system by code or words. */
export const SystemField = ({ epsg, onChange, label }: { epsg: number | null; onChange: (epsg: number | null) => void; label: string }) => {
  const [text, setText] = useState(epsg === null ? "" : `EPSG:${epsg}`);
  const [found, setFound] = useState<readonly { epsg: number; name: string; area: string }[]>([]);
  useEffect(() => {
    if (text.trim().length < 3 || text === `EPSG:${epsg}`) {
      setFound([]);
      return;
    }
    const abort = new AbortController();
    const timer = setTimeout(() => {
      getJson<typeof found>(`/api/systems?q=${encodeURIComponent(text)}`, abort.signal)
        .then(setFound)
        .catch(() => undefined);
    }, 250);
    return () => {
      clearTimeout(timer);
      abort.abort();
    };
  }, [text, epsg]);
  return (
    <div>
      <Field label={label} value={text} placeholder="EPSG code or words: utm 27n" onChange={(e) => setText(e.target.value)} />
      {found.length > 0 && (
        <ul className="m-0 max-h-[150px] list-none overflow-auto border border-rule p-0">
          {found.map((s) => (
            <li key={s.epsg}>
              <button
                type="button"
                className="block w-full px-2 py-1 text-left text-line"
                onClick={() => {
                  setText(`EPSG:${s.epsg}`);
                  setFound([]);
                  onChange(s.epsg);
                }}
              >
                <b>{s.epsg}</b> {s.name}
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
};

export const Buttons = ({
  ready,
  onBegin,
  onLeave,
  fault,
}: {
  ready: boolean;
  onBegin: () => void;
  onLeave: () => void;
  fault: string | null;
}) => (
  <>
    {fault !== null && (
      <p role="alert" className="m-0 text-short-figure">
        {fault}
      </p>
    )}
    <div className="flex gap-4">
      <button type="button" className="main-action" disabled={!ready} onClick={onBegin}>
        Take it in
      </button>
      <button type="button" className="press" onClick={onLeave}>
        Leave it
      </button>
    </div>
  </>
);

export const useChecked = (onBegin: (o: ImportOptions) => Promise<void>) => {
  const [fault, setFault] = useState<string | null>(null);
  return {
    fault,
    begin: (options: unknown): void => {
      const parsed = importOptionsSchema.safeParse(options);
      if (parsed.success) {
        setFault(null);
        void onBegin(parsed.data);
        return;
      }
      const message = parsed.error.issues[0]?.message ?? "";
      setFault(`${message.charAt(0).toUpperCase()}${message.slice(1)}.`);
    },
  };
};

export const HeightUnitChoice = ({ value, onChange }: { value: string; onChange: (unit: string) => void }) => (
  <Choice label="Unit of its heights" value={value} onChange={(e) => onChange(e.target.value)}>
    <option value="">choose</option>
    {UNIT_CHOICES.map(([key, words]) => (
      <option key={key} value={key}>
        {words}
      </option>
    ))}
  </Choice>
);

/** What was said of a table: its columns of position, and that they stand exchanged. */
export interface Columns {
  readonly lat?: string;
  readonly lon?: string;
  readonly swapped?: boolean;
}

/** Rows of a file with a word about each. */
export const Rows = ({ rows }: { rows: readonly { readonly row: number; readonly reason: string }[] }) => (
  <ol className="m-0 max-h-[140px] list-none overflow-auto p-0">
    {rows.map((f, n) => (
      <li key={n}>
        Row {f.row}: {f.reason}
      </li>
    ))}
  </ol>
);
