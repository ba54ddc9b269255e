import type { PackFacts, PackLink } from "../contract";
import { offAim } from "../core/aim";
import { type Block, type Box, circle, cutText, line, type Mark, type Page, type Paper, rect, text, textWidthPt } from "../core/page";
import { placesOfLink, unitRows } from "../ui/sheets/wiring/wiring-view";
import { quantityText, RISK_CAUTION, RISK_WORDS, riskText, WHERE_WORDS } from "../ui/wording/kit";
import { bearingText, distanceText, figure, lengthText, type Units } from "../ui/wording/numbers";
import { supplyText, voltsText, wattsText } from "../ui/wording/wiring";
import { curveBlock, poleScale, tableBlock } from "./aim-figures";
import { contentBox, type FrameSaid, flowing, framed } from "./frame";
import { callScript, isHeard, orderOf } from "./order";
import { exaggerationOf, sectionFigure } from "./section-figure";
import { seenFigure, sideText } from "./seen-figure";

export interface PagesAsk {
  readonly paper: Paper;
  readonly units: Units;
  /** Where a phone that is not this machine reaches the job; null: nowhere, and no code is printed. */
  readonly address: string | null;
}

const H2 = (x: number, y: number, words: string, aside: string): Block => ({
  role: "H2",
  marks: [text(x, y, words, 11, { face: "bold" }), text(x + textWidthPt(words, 11, "bold") + 6, y, aside, 8)],
});

const badge = (x: number, y: number, letter: string): Mark[] => [
  circle(x, y, 12, null, 2),
  text(x, y + 4.5, letter, 13, { face: "bold", anchor: "middle" }),
];

const whoBlocks = (l: PackLink, i: 0 | 1, box: Box, units: Units): Block[] => {
  const end = l.ends[i];
  const other = l.ends[1 - i]!;
  const wide = [112, 62, 104];
  const x0 = box.x + box.width - wide.reduce((s, w) => s + w, 0);
  const at = [x0, x0 + wide[0]!, x0 + wide[0]! + wide[1]!];
  const magnetic = bearingText(end.lookDeg - end.declinationDeg + 360);
  const told = (k: number, label: string, big: string, below: readonly string[]): Mark[] => [
    text(at[k]! + 8, box.y + 13, label, 7.5),
    text(at[k]! + 8, box.y + 37, big, k === 0 ? 24 : 22, { face: "bold" }),
    ...below.map((b, n) => text(at[k]! + 8, box.y + 49 + n * 10, b, 8)),
  ];
  const tilt = Math.abs(end.lookTiltDeg) < 0.05 ? "level" : end.lookTiltDeg > 0 ? "up" : "down";
  return [
    {
      role: "H1",
      marks: [
        ...badge(box.x + 20, box.y + 32, "AB"[i]!),
        text(box.x + 42, box.y + 22, cutText(end.name, x0 - box.x - 50, 18, "bold"), 18, { face: "bold" }),
      ],
    },
    {
      role: "P",
      marks: [
        ...[
          `${end.stands === null ? "" : `${end.stands}, `}${lengthText(units, end.aglM)} above ground, ${lengthText(units, end.amslM)} above the sea`,
          `${"AB"[1 - i]} ${other.name} is ${distanceText(units, l.path.profile.pathM)} off${end.ownAxis ? `, ${sideText(offAim(end.bearingDeg, end.lookDeg))} of the axis` : ""}`,
          end.antenna === end.unit ? end.unit : `${end.unit} with ${end.antenna}`,
        ].map((said, k) => text(box.x + 42, box.y + 36 + k * 11, cutText(said, x0 - box.x - 50, 8.5), 8.5)),
      ],
    },
    {
      role: "P",
      marks: [
        ...told(0, "Look along", magnetic, ["magnetic", `${bearingText(end.lookDeg)} true`]),
        ...told(1, "Tilt", `${figure(Math.abs(end.lookTiltDeg), 1)}°`, [tilt]),
        ...told(
          2,
          "Read",
          end.level === null ? "none" : figure(end.level.dbm),
          end.level === null
            ? ["radios do not pair"]
            : ["dBm a chain, 8 in 10:", `${figure(end.level.lowDbm)} to ${figure(end.level.highDbm)}`],
        ),
      ],
    },
    { role: "Artifact", marks: [...at.map((x) => line(x, box.y, x, box.y + 70)), line(box.x, box.y + 70, box.x + box.width, box.y + 70)] },
  ];
};

/** First page of an end: who, section, what is seen, aiming table and graph. */
const firstPage = (l: PackLink, i: 0 | 1, ask: PagesAsk): Block[] => {
  const box = contentBox(ask.paper);
  const end = l.ends[i];
  const blocks: Block[] = [...whoBlocks(l, i, box, ask.units)];
  // What Letter is shorter by is taken from the section.
  const sectionPt = box.height - 70 - 190 - 270;
  const section: Box = { x: box.x, y: box.y + 70 + 20, width: box.width, height: sectionPt - 22 };
  blocks.push(
    H2(
      box.x + 8,
      box.y + 85,
      "Section",
      `heights × ${exaggerationOf(l, section)}; in ${l.plan.policy.year}, between the dashes and the line the zone that must stay free`,
    ),
  );
  blocks.push(sectionFigure(l, section, ask.units, i));
  const seenY = box.y + 70 + sectionPt;
  const seen = seenFigure(end, "AB"[1 - i]!, { x: box.x, y: seenY + 18, width: box.width, height: 170 });
  blocks.push({
    role: "Artifact",
    marks: [line(box.x, seenY, box.x + box.width, seenY), line(box.x, seenY + 190, box.x + box.width, seenY + 190)],
  });
  blocks.push(
    H2(box.x + 8, seenY + 14, "What you see", `from behind the antenna, by degrees left and right of the aim; heights × ${seen.larger}`),
    seen.block,
  );
  const aimY = seenY + 190;
  const aim: Box = { x: box.x + 8, y: aimY + 20, width: box.width - 16, height: box.y + box.height - aimY - 22 };
  if (end.level === null || end.azimuth === null) {
    blocks.push(
      H2(
        box.x + 8,
        aimY + 14,
        "Aiming",
        end.level === null
          ? "the radios do not fit each other: there is no level to aim by"
          : end.ownAxis
            ? "this antenna is set to its own axis and tilt, not to one remote"
            : "this antenna is not found by turning",
      ),
    );
    return blocks;
  }
  blocks.push(H2(box.x + 8, aimY + 14, "Aiming table", "degrees off, dBm a chain"));
  blocks.push(tableBlock(end.azimuth, end.level.leastDbm, { ...aim, width: 214 }));
  blocks.push({ role: "Artifact", marks: [line(box.x + 232, aimY, box.x + 232, box.y + box.height)] });
  blocks.push(H2(box.x + 240, aimY + 14, "Level against turn", "the peak, its flanks, false peaks"));
  const graph: Box = { x: box.x + 240, y: aimY + 20, width: box.width - 248, height: aim.height - 50 };
  blocks.push(curveBlock(end, end.azimuth, graph));
  const lines = [
    isHeard(end.level)
      ? `${figure(end.level.dbm)} dBm at the peak; stop at ${figure(end.level.lowDbm)} or better.`
      : `Too weak to be heard: ${figure(end.level.dbm)} dBm, and ${figure(end.level.leastDbm)} is needed.`,
    end.azimuth.falsePeakDbm === null
      ? "No false peak is known."
      : end.azimuth.falsePeakDbm < end.level.leastDbm
        ? `Its false peaks, ${figure(end.azimuth.falsePeakDeg!, 1)}° off, are too weak to be heard.`
        : `A peak of ${figure(end.azimuth.falsePeakDbm)} is a false one, ${figure(end.azimuth.falsePeakDeg!, 1)}° off.`,
    end.tilt === null
      ? ""
      : `In tilt the beam is ${figure(end.tilt.beamwidthDeg, 1)}° wide${end.tilt.falsePeakDbm === null ? "" : `, a false peak of ${figure(end.tilt.falsePeakDbm)} at ${figure(end.tilt.falsePeakDeg!, 1)}°`}.`,
  ];
  blocks.push({
    role: "P",
    marks: lines.map((said, k) => text(graph.x, graph.y + graph.height + 13 + k * 12, said, 9, { face: k < 2 ? "bold" : "plain" })),
  });
  return blocks;
};

const readingsRows = 4;

/** Further pages of an end: order of work, wiring, addresses, kit, cautions, room for readings. */
const furtherPages = (facts: PackFacts, l: PackLink, i: 0 | 1, ask: PagesAsk): Block[][] => {
  const end = l.ends[i];
  const other = l.ends[1 - i]!;
  const flow = flowing(ask.paper);
  if (end.kit !== null) {
    flow.heading("Before anyone climbs");
    for (const r of end.kit.risks.filter((r) => r.state !== "none"))
      flow.words(`${RISK_WORDS[r.risk]}: ${riskText(r, "")}. ${RISK_CAUTION[r.risk]}`, {
        indentPt: 18,
        lead: "\u25a1",
        strong: r.verdict === "short",
      });
  } else {
    flow.heading("Before anyone climbs", "the risk screen of this end was not filled in");
    flow.words(RISK_CAUTION.height);
    flow.words(RISK_CAUTION.mains);
    flow.words(RISK_CAUTION.lightning);
  }
  flow.heading("Order of work");
  let n = 0;
  for (const row of orderOf(l, end, other)) {
    if ("lock" in row) {
      flow.put(17, (y) => ({
        role: "P",
        marks: [
          rect({ x: flow.x, y: y + 1, width: flow.width, height: 12.5 }, "ink", 0),
          text(flow.x + 6, y + 10.5, cutText(`Locked: ${row.lock}`, flow.width - 12, 9, "bold"), 9, { face: "bold", inverse: true }),
        ],
      }));
    } else flow.words(row.step, { lead: String(++n), indentPt: 18 });
  }
  flow.heading("By phone", "word for word");
  for (const said of callScript(end, other)) flow.words(said, { indentPt: 18, lead: "\u2022" });
  if (end.poleMm !== null) {
    flow.heading("Scale for the pole", `pole of ${figure(end.poleMm)} mm; cut out, laid round it, 0 under the mark on the bracket`);
    const { poleMm } = end;
    flow.put(poleScale(poleMm, flow.x, 0, flow.width).heightPt, (y) => poleScale(poleMm, flow.x, y, flow.width).block);
  }
  flow.heading("Readings", "after tightening; the other end's are told by phone");
  flow.put(readingsRows * 19 + 16, (y) => {
    const heads = ["time", "level 1, dBm", "level 2, dBm", "noise, dBm", "modulation", "rate to / from, Mbps", "weather", "by"];
    const wide = flow.width / heads.length;
    return {
      role: "Table",
      rows: [heads.map((h, k) => [text(flow.x + k * wide + 3, y + 9, h, 7)])],
      marks: Array.from({ length: readingsRows * heads.length }, (_, k) =>
        rect({ x: flow.x + (k % heads.length) * wide, y: y + 13 + Math.floor(k / heads.length) * 19, width: wide, height: 19 }, null, 0.5),
      ),
    };
  });
  flow.heading("Wiring", end.wired === null ? "this end is not wired in the plan yet" : "what is plugged into what");
  if (end.wired !== null)
    flow.table(
      ["Unit", "Plugged into", "Cable", "Supply", "Arrives"],
      [24, 30, 12, 24, 16],
      unitRows(end.wired, placesOfLink(end.wired.judged.wired, l.link.id).shown).map((r) => [
        r.type === "" || r.type === r.place.name ? r.place.name : `${r.place.name}, ${r.type}`,
        r.into === null ? "nothing" : `${r.into.name}, ${r.into.port}`,
        r.metres === null ? "" : lengthText(ask.units, r.metres, 0),
        r.arrival === null ? "" : supplyText(r.arrival.gives.key),
        r.arrival?.volts == null ? "" : `${voltsText(r.arrival.volts)}${r.watts === null ? "" : `, ${wattsText(r.watts)}`}`,
      ]),
    );
  if (end.addresses.length > 0) {
    flow.heading("Addresses");
    flow.table(
      ["Unit", "Network", "Address"],
      [40, 24, 24],
      end.addresses.map((a) => [a.place.name, a.net, a.address ?? "not given yet"]),
    );
  }
  if (end.kit !== null) {
    const rows = end.kit.rows;
    flow.heading("Kit for this end", `${rows.length} lines`);
    flow.table(
      ["", "What", "How many", "Where", "State"],
      [4, 50, 16, 22, 14],
      rows.map((r) => ["\u25a1", r.name, quantityText(r, ask.units), WHERE_WORDS[r.where], r.state]),
    );
  }
  if (end.access !== "" || facts.contact !== "") {
    flow.heading("Access and contact");
    if (end.access !== "") flow.words(end.access);
    if (facts.contact !== "") flow.words(facts.contact);
  }
  return flow.pages;
};

/** Pages of one end, for who goes there. */
export const endPages = (facts: PackFacts, l: PackLink, i: 0 | 1, ask: PagesAsk, said: FrameSaid): Page[] => {
  const all = [firstPage(l, i, ask), ...furtherPages(facts, l, i, ask)];
  return all.map((blocks, n) => framed(ask.paper, said, `${"AB"[i]}, ${n + 1} of ${all.length}`, blocks));
};
