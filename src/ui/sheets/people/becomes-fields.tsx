"use client";
import { type BecomesDto, ROLES, type Role, SHEET_NAMES, type SheetName } from "@/contract";
import { useJobs } from "../../api/queries";
import { Choice } from "../../controls/field";
import { ROLE_NAME, ROLE_NOTE, SHEET_WORD } from "../../wording/people";

export const START: BecomesDto = { role: "planner", jobIds: null, sheets: null };

/** What a role is given when it is chosen: owners and planners have all jobs, customers chosen ones. */
export const asRole = (role: Role, was: BecomesDto): BecomesDto => ({
  role,
  jobIds: role === "owner" || role === "planner" ? null : role === "customer" ? (was.jobIds ?? []) : was.jobIds,
  sheets: role === "customer" ? (was.sheets ?? ["section"]) : null,
});

const toggled = <T,>(list: readonly T[], item: T): T[] => (list.includes(item) ? list.filter((x) => x !== item) : [...list, item]);

/** Sheets that are given to somebody, a tick each. */
export const SheetTicks = ({
  value,
  onChange,
  fault,
  without = [],
}: {
  value: readonly SheetName[];
  onChange: (value: SheetName[]) => void;
  fault?: string | undefined;
  /** Sheets that cannot be given. */
  without?: readonly SheetName[];
}) => (
  <fieldset>
    <legend className="cap">Sheets</legend>
    <div className="grid grid-cols-3">
      {SHEET_NAMES.map((s) => (
        <label key={s} className={`flex min-h-[26px] items-center gap-2 ${without.includes(s) ? "text-ink-2" : ""}`}>
          <input type="checkbox" checked={value.includes(s)} disabled={without.includes(s)} onChange={() => onChange(toggled(value, s))} />
          {SHEET_WORD[s]}
        </label>
      ))}
    </div>
    {fault !== undefined && (
      <p role="alert" className="m-0 text-short-figure">
        {fault}
      </p>
    )}
  </fieldset>
);

/** Jobs that are given, a tick each. */
export const JobTicks = ({ value, onChange }: { value: readonly string[]; onChange: (value: string[]) => void }) => {
  const { data } = useJobs();
  return (
    <fieldset>
      <legend className="cap">Jobs</legend>
      <div className="max-h-[160px] overflow-auto">
        {(data ?? []).map(({ job }) => (
          <label key={job.id} className="flex min-h-[26px] items-center gap-2">
            <input type="checkbox" checked={value.includes(job.id)} onChange={() => onChange(toggled(value, job.id))} />
            {job.name}
          </label>
        ))}
      </div>
    </fieldset>
  );
};

/** What somebody will be, of which jobs, and which sheets. @param roles that may be chosen. */
export const BecomesFields = ({
  value,
  onChange,
  roles = ROLES,
  fault,
}: {
  value: BecomesDto;
  onChange: (value: BecomesDto) => void;
  roles?: readonly Role[];
  fault?: string | undefined;
}) => {
  const free = value.role === "installer" || value.role === "viewer";
  return (
    <div className="grid gap-3.5">
      <div>
        <Choice label="Role" value={value.role} onChange={(e) => onChange(asRole(e.target.value as Role, value))}>
          {roles.map((r) => (
            <option key={r} value={r}>
              {ROLE_NAME[r]}
            </option>
          ))}
        </Choice>
        <p className="cap m-0 mt-1">{ROLE_NOTE[value.role]}</p>
      </div>
      {free && (
        <Choice
          label="Jobs"
          value={value.jobIds === null ? "all" : "some"}
          onChange={(e) => onChange({ ...value, jobIds: e.target.value === "all" ? null : [] })}
        >
          <option value="all">all jobs of the firm</option>
          <option value="some">only the ones ticked below</option>
        </Choice>
      )}
      {value.jobIds !== null && <JobTicks value={value.jobIds} onChange={(jobIds) => onChange({ ...value, jobIds })} />}
      {value.role === "customer" && <SheetTicks value={value.sheets ?? []} onChange={(sheets) => onChange({ ...value, sheets })} />}
      {fault !== undefined && (
        <p role="alert" className="m-0 text-short-figure">
          {fault}
        </p>
      )}
    </div>
  );
};
