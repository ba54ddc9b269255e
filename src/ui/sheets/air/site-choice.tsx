"use client";
import { Choice } from "../../controls/field";

/** One of the sites of the job. */
export const SiteChoice = ({
  label,
  sites,
  value,
  choose,
}: {
  label: string;
  sites: readonly { readonly id: string; readonly name: string }[];
  value: string;
  choose: (siteId: string) => void;
}) => (
  <Choice label={label} value={value} onChange={(e) => choose(e.target.value)}>
    {sites.map((s) => (
      <option key={s.id} value={s.id}>
        {s.name}
      </option>
    ))}
  </Choice>
);
