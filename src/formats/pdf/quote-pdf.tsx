import { Document, Page, renderToBuffer, StyleSheet, Text, View, type ViewProps } from "@react-pdf/renderer";
import { PAPER_FONTS, printable } from "./fonts";

/* A quote on paper: what is delivered where, the work, the sums, the terms. */

export interface QuoteSheet {
  readonly job: string;
  readonly place: string;
  /** What of the job it is of. */
  readonly of: string;
  readonly to: string;
  readonly day: string;
  readonly validUntil: string | null;
  readonly sections: readonly { readonly name: string; readonly rows: readonly { readonly quantity: string; readonly name: string }[] }[];
  readonly labour: readonly { readonly quantity: string; readonly name: string }[];
  readonly sums: readonly { readonly name: string; readonly amount: string; readonly isTotal: boolean }[];
  readonly terms: string;
  readonly notes: readonly string[];
}

const INK = "#16202c";
const style = StyleSheet.create({
  page: {
    paddingTop: 48,
    paddingBottom: 56,
    paddingHorizontal: 52,
    fontFamily: PAPER_FONTS as unknown as string,
    fontSize: 10,
    color: INK,
  },
  title: { fontSize: 24, fontWeight: 700 },
  head: { fontSize: 13, fontWeight: 700, marginTop: 2 },
  facts: { marginTop: 10, flexDirection: "row", gap: 28, borderTopWidth: 1, borderBottomWidth: 1, borderColor: INK, paddingVertical: 6 },
  section: { fontSize: 11.5, fontWeight: 700, marginTop: 14, marginBottom: 3 },
  row: { flexDirection: "row", paddingVertical: 1.6 },
  quantity: { width: 76, textAlign: "right", paddingRight: 14 },
  grow: { flex: 1 },
  sum: { flexDirection: "row", justifyContent: "flex-end", paddingVertical: 1.8 },
  sumName: { width: 200 },
  amount: { width: 110, textAlign: "right" },
  total: { fontWeight: 700, borderTopWidth: 1, borderColor: INK, fontSize: 12, paddingTop: 4 },
  small: { fontSize: 8.5, lineHeight: 1.35, marginTop: 4 },
  foot: { position: "absolute", bottom: 26, left: 52, right: 52, flexDirection: "row", justifyContent: "space-between", fontSize: 8.5 },
});

const Words = ({ children, style: of }: { children: string; style?: NonNullable<ViewProps["style"]> }) => (
  <Text {...(of === undefined ? {} : { style: of })}>{printable(children)}</Text>
);

const Rows = ({ name, rows }: { name: string; rows: QuoteSheet["labour"] }) => (
  <View>
    <View minPresenceAhead={30}>
      <Words style={style.section}>{name}</Words>
    </View>
    {rows.map((r, i) => (
      <View key={i} style={style.row} wrap={false}>
        <Words style={style.quantity}>{r.quantity}</Words>
        <Words style={style.grow}>{r.name}</Words>
      </View>
    ))}
  </View>
);

const Fact = ({ name, value }: { name: string; value: string }) => (
  <View>
    <Words style={{ fontSize: 8.5 }}>{name}</Words>
    <Words>{value}</Words>
  </View>
);

const Head = ({ q }: { q: QuoteSheet }) => (
  <View>
    <Words style={style.title}>Quote</Words>
    <Words style={style.head}>{q.of}</Words>
    <Words>{q.place === "" ? q.job : `${q.job}, ${q.place}`}</Words>
    <View style={style.facts}>
      {q.to !== "" && <Fact name="For" value={q.to} />}
      <Fact name="Date" value={q.day} />
      <Fact name="Holds until" value={q.validUntil ?? "not said"} />
    </View>
  </View>
);

/** Sums, terms and what stands beneath them. */
const Foot = ({ q }: { q: QuoteSheet }) => (
  <>
    <View style={{ marginTop: 16 }} wrap={false}>
      {q.sums.map((s) => (
        <View key={s.name} style={s.isTotal ? [style.sum, style.total] : style.sum}>
          <Words style={style.sumName}>{s.name}</Words>
          <Words style={style.amount}>{s.amount}</Words>
        </View>
      ))}
    </View>
    {q.terms !== "" && (
      <View style={{ marginTop: 14 }}>
        <Words style={style.section}>Terms</Words>
        <Words>{q.terms}</Words>
      </View>
    )}
    <View style={{ marginTop: 12 }}>
      {q.notes.map((n) => (
        <Words key={n} style={style.small}>
          {n}
        </Words>
      ))}
    </View>
  </>
);

/** Rows that are laid out at once: the time for a run of pages grows with its square. */
const MOST_ROWS = 120;

type Section = QuoteSheet["sections"][number];

/** Sections cut into runs of pages, in order; each run begins on a page of its own. */
const inSheets = (sections: readonly Section[]): Section[][] => {
  const out: Section[][] = [[]];
  let count = 0;
  for (const { name, rows } of sections)
    for (let from = 0; from < Math.max(1, rows.length); ) {
      if (count >= MOST_ROWS) {
        out.push([]);
        count = 0;
      }
      const run = rows.slice(from, from + MOST_ROWS - count);
      out.at(-1)!.push({ name: from === 0 ? name : `${name}, further`, rows: run });
      count += Math.max(1, run.length);
      from += Math.max(1, run.length);
    }
  return out;
};

/** @returns the bytes of a PDF on A4, or on Letter paper. */
export const quotePdf = (q: QuoteSheet, paper: "A4" | "LETTER" = "A4"): Promise<Buffer> => {
  const sheets = inSheets([...q.sections, ...(q.labour.length === 0 ? [] : [{ name: "Work", rows: q.labour }])]);
  return renderToBuffer(
    <Document title={printable(`Quote, ${q.of}`)} language="en" creator="Dry Arc" producer="Dry Arc">
      {sheets.map((sections, n) => (
        <Page key={n} size={paper} style={style.page}>
          {n === 0 && <Head q={q} />}
          {sections.map((s, i) => (
            <Rows key={i} name={s.name} rows={s.rows} />
          ))}
          {n === sheets.length - 1 && <Foot q={q} />}
          <View style={style.foot} fixed>
            <Words>{`${q.job}, ${q.of}`}</Words>
            <Text render={({ pageNumber, totalPages }) => `${pageNumber} of ${totalPages}`} />
          </View>
        </Page>
      ))}
    </Document>,
  );
};
