import type { KindName } from "@/contract";
import { toldOf } from "@/contract";
import type { SaveStatus } from "../state/record";
import { foughtOf } from "../wording/fought";
import type { Units } from "../wording/numbers";

type Values = Readonly<Record<string, unknown>>;

/** Two people changed one record: both sides stand beside each other, and the person chooses. */
export const ClashNotice = <F,>({
  kind,
  status,
  setAside,
  units,
  resolve,
  recall,
}: {
  kind: KindName;
  status: SaveStatus<F>;
  setAside: Partial<F> | null;
  units: Units;
  resolve: (keep: "mine" | "theirs") => void;
  recall: () => void;
}) => {
  if (status.kind !== "clash")
    return setAside === null ? null : (
      <p role="status" className="m-0 flex gap-4 border-b border-ink px-3.5 py-2">
        <span className="flex-1">What you had changed is set aside.</span>
        <button type="button" className="press" onClick={recall}>
          Bring it back
        </button>
      </p>
    );
  const rows = Object.keys(status.mine).flatMap((field) =>
    foughtOf(kind, units, field, (status.mine as Values)[field], (status.theirs as Values)[field]),
  );
  return (
    <section role="alert" aria-label="Changed elsewhere" className="border-b border-ink px-3.5 py-3">
      <p className="m-0 mb-2">Someone else changed this {toldOf(kind).words.one} while you did. Nothing is lost: choose which stands.</p>
      <table className="mb-2 w-full border-collapse text-left">
        <thead>
          <tr className="cap">
            <th className="font-normal">Field</th>
            <th className="font-normal">Yours</th>
            <th className="font-normal">Theirs</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r, i) => (
            <tr key={`${i} ${r.name}`} className="border-t border-rule">
              <td className="pr-2">{r.name}</td>
              <td className="pr-2">{r.mine}</td>
              <td>{r.theirs}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="flex gap-4">
        <button type="button" className="press" onClick={() => resolve("mine")}>
          Keep mine
        </button>
        <button type="button" className="press" onClick={() => resolve("theirs")}>
          Take theirs
        </button>
      </div>
    </section>
  );
};
