"use client";
import { useQuery } from "@tanstack/react-query";
import { type FreeTextDto, toldOf } from "@/contract";
import { getJson } from "../../api/client";
import { Trouble } from "../../frame/trouble";

/** What a link tells of a job whose identity is left out, and the words that may be told all the same, each to be ticked. */
export const IdentityPart = ({
  jobId,
  told,
  onChange,
}: {
  jobId: string;
  told: readonly string[];
  onChange: (told: readonly string[]) => void;
}) => {
  const { data, error } = useQuery({
    queryKey: ["shares", jobId, "texts"],
    queryFn: ({ signal }) => getJson<FreeTextDto[]>(`/api/jobs/${jobId}/shares/texts`, signal),
  });
  return (
    <div className="border-l-2 border-ink pl-3">
      <p className="m-0">
        Sites become letters. Positions are moved together to a made-up place, so lengths, bearings and verdicts stay; of the latitude the
        whole degree stays, of the needle too. Customer, contacts, addresses, serials, photos and prices go. The shape of the ground stays
        in the section: who knows the country may know it again.
      </p>
      {data === undefined ? (
        <Trouble error={error} waiting="Reading what was written." />
      ) : data.length === 0 ? (
        <p className="m-0 mt-2 text-ink-2">Nothing was written in words.</p>
      ) : (
        <fieldset className="mt-2">
          <legend className="cap">Words are left out; tick what may be told</legend>
          {/* It scrolls by itself; its ticks are reached by the keyboard. */}
          <div className="max-h-[170px] overflow-auto border-y border-rule">
            {data.map((t) => (
              <label key={t.mark} className="flex items-start gap-2 py-1">
                <input
                  type="checkbox"
                  className="mt-1 flex-none"
                  checked={told.includes(t.mark)}
                  onChange={(e) => onChange(e.target.checked ? [...told, t.mark] : told.filter((m) => m !== t.mark))}
                />
                <span className="min-w-0 break-words">
                  {t.text} <span className="text-ink-2">({toldOf(t.kind).words.one})</span>
                </span>
              </label>
            ))}
          </div>
        </fieldset>
      )}
    </div>
  );
};
