"use client";
import {
  columnFilteringFeature,
  columnVisibilityFeature,
  createFilteredRowModel,
  createSortedRowModel,
  filterFn_includesString,
  globalFilteringFeature,
  rowSortingFeature,
  sortFn_alphanumeric,
  sortFn_basic,
  tableFeatures,
  useTable,
} from "@tanstack/react-table";
import { ChevronDown, ChevronUp } from "lucide-react";
import { type ReactNode, useMemo } from "react";
import { Choice, Field } from "./field";

const features = tableFeatures({
  columnFilteringFeature,
  globalFilteringFeature,
  rowSortingFeature,
  columnVisibilityFeature,
  filteredRowModel: createFilteredRowModel(),
  sortedRowModel: createSortedRowModel(),
  filterFns: { includesString: filterFn_includesString },
  sortFns: { words: sortFn_alphanumeric, numbers: sortFn_basic },
});

export interface DataColumn<R> {
  readonly name: string;
  /** What is sorted by, searched and chosen among: figures as numbers. */
  readonly value: (row: R) => string | number;
  /** How it is written; the value where it is left out. */
  readonly cell?: (row: R) => ReactNode;
  readonly numeric?: boolean;
  /** Rows can be kept to one of its values. */
  readonly chosen?: boolean;
  /** Not shown until it is asked for. */
  readonly aside?: boolean;
}

const SORT_WORDS = { asc: "ascending", desc: "descending" } as const;

/** Rows that can be searched, sorted by a press on a column's name, kept to a value, and shown with other columns. */
export const DataTable = <R extends { readonly id: string }>({
  label,
  rows,
  columns,
}: {
  label: string;
  rows: readonly R[];
  columns: readonly DataColumn<R>[];
}) => {
  const defs = useMemo(
    () =>
      columns.map((c) => ({
        id: c.name,
        accessorFn: c.value,
        // Words are searched for: a figure is sorted by.
        enableGlobalFilter: c.numeric !== true,
        sortFn: c.numeric === true ? ("numbers" as const) : ("words" as const),
        filterFn: (row: { getValue: (id: string) => unknown }, id: string, wanted: unknown) => String(row.getValue(id)) === wanted,
      })),
    [columns],
  );
  const data = useMemo(() => [...rows], [rows]);
  const table = useTable({
    features,
    columns: defs,
    data,
    getRowId: (row) => row.id,
    globalFilterFn: "includesString",
    initialState: { columnVisibility: Object.fromEntries(columns.map((c) => [c.name, c.aside !== true])) },
  });
  const shown = columns.filter((c) => table.getColumn(c.name)?.getIsVisible() === true);
  const found = table.getRowModel().rows;
  return (
    <section aria-label={label}>
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2 px-4 pb-2">
        <div className="w-[180px]">
          <Field
            label={`Search ${label.toLowerCase()}`}
            type="search"
            value={String(table.state.globalFilter ?? "")}
            onChange={(e) => table.setGlobalFilter(e.target.value)}
          />
        </div>
        {columns
          .filter((c) => c.chosen === true)
          .map((c) => (
            <Choice
              key={c.name}
              label={c.name}
              value={String(table.getColumn(c.name)?.getFilterValue() ?? "")}
              onChange={(e) => table.getColumn(c.name)?.setFilterValue(e.target.value === "" ? undefined : e.target.value)}
            >
              <option value="">all</option>
              {[...new Set(rows.map((r) => String(c.value(r))))].sort().map((v) => (
                <option key={v}>{v}</option>
              ))}
            </Choice>
          ))}
        <details className="relative">
          <summary className="press cursor-pointer">Columns</summary>
          <fieldset
            aria-label={`Columns of ${label.toLowerCase()}`}
            className="absolute z-10 max-h-[60vh] overflow-auto border-[1.6px] border-ink bg-paper px-3 py-2"
          >
            {columns.slice(1).map((c) => (
              <label key={c.name} className="flex min-h-7 items-center gap-2 whitespace-nowrap">
                <input
                  type="checkbox"
                  className="h-6 w-6 accent-(--ink)"
                  checked={table.getColumn(c.name)?.getIsVisible() === true}
                  onChange={(e) => table.getColumn(c.name)?.toggleVisibility(e.target.checked)}
                />
                {c.name}
              </label>
            ))}
          </fieldset>
        </details>
        <span className="cap ml-auto" role="status">
          {found.length === rows.length ? `${rows.length}` : `${found.length} of ${rows.length}`}
        </span>
      </div>
      <table className="w-full border-collapse text-line">
        <thead>
          <tr className="sticky top-0 border-b border-ink bg-paper text-left text-note text-ink-2 [&>th]:whitespace-nowrap [&>th]:py-0.5 [&>th]:pl-4 [&>th]:font-normal">
            {shown.map((c) => {
              const column = table.getColumn(c.name);
              const sorted = column?.getIsSorted() ?? false;
              return (
                <th
                  key={c.name}
                  scope="col"
                  className={c.numeric === true ? "text-right" : ""}
                  aria-sort={sorted === false ? "none" : SORT_WORDS[sorted]}
                >
                  <button type="button" className="inline-flex min-h-6 items-center gap-1" onClick={() => column?.toggleSorting()}>
                    {c.name}
                    {sorted === "asc" && <ChevronUp size={13} aria-hidden="true" />}
                    {sorted === "desc" && <ChevronDown size={13} aria-hidden="true" />}
                  </button>
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {found.map(({ original: row }) => (
            <tr key={row.id} className="border-b border-rule [&>td]:whitespace-nowrap [&>td]:py-[3px] [&>td]:pl-4">
              {shown.map((c, i) => (
                <td key={c.name} className={c.numeric === true ? "text-right font-mono" : i === 0 ? "font-figure" : ""}>
                  {(c.cell ?? c.value)(row)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {found.length === 0 && <p className="px-4 py-2 text-ink-2">{rows.length === 0 ? "None yet." : "None by that."}</p>}
    </section>
  );
};
