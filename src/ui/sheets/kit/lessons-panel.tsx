"use client";
import { useMemo } from "react";
import { type JobBundle, type KitFields, type Lesson, type LessonDto, offeredLessons, type SiteKit, WALLS } from "@/contract";
import { useLessons } from "../../api/queries";
import { Choice, Field } from "../../controls/field";
import { RemoveRow } from "../../controls/rows";
import { useKeptDraft } from "../../state/use-kept-draft";

const PART = "part:";
const WALL = "wall:";
const MOST_OFFERED = 6;

interface LessonsAsk {
  readonly job: JobBundle;
  readonly kit: KitFields;
  readonly now: () => KitFields;
  readonly change: (set: Partial<KitFields>) => void;
  readonly ends: readonly SiteKit[];
}

const siteNamed = (job: JobBundle, siteId: string): string => job.sites.find((s) => s.id === siteId)?.name ?? "a site that is gone";
const partsAt = (ends: readonly SiteKit[]): readonly (readonly [id: string, name: string])[] => [
  ...new Map(ends.flatMap((e) => e.rows.flatMap((r) => (r.part === null ? [] : [[r.part.id, r.part.name] as const])))),
];
const aboutText = (l: Lesson, parts: readonly (readonly [string, string])[]): string =>
  l.partId !== null ? ` (${parts.find(([p]) => p === l.partId)?.[1] ?? l.partId})` : l.wall !== null ? ` (wall of ${l.wall})` : "";

/** What earlier sites taught, offered by their names where it fits. */
export const OfferedLessons = ({ job, kit, now, change, ends }: LessonsAsk) => {
  const others = useLessons(job.job.id);
  const offered = useMemo(() => {
    const siteName = (id: string): string => job.sites.find((s) => s.id === id)?.name ?? "";
    const own = kit.lessons.map((l) => ({ ...l, jobId: job.job.id, jobName: "", siteName: siteName(l.siteId) }));
    return offeredLessons([...own, ...(others.data ?? [])], ends, kit);
  }, [kit, others.data, job, ends]);
  const parts = useMemo(() => partsAt(ends), [ends]);
  const from = (l: LessonDto): string => [l.siteName, l.jobName].filter((n) => n !== "").join(", ") || "a site that is gone";
  const putOnList = (lesson: LessonDto, siteId: string): void => {
    const row = { id: crypto.randomUUID(), siteId, where: "tools", name: lesson.words.slice(0, 120) } as const;
    const why = `lesson of ${from(lesson)}`.slice(0, 200);
    change({
      own: [...now().own, { ...row, quantity: 1, unit: "", priceEur: null, why }],
      lessonsRead: [...now().lessonsRead, lesson.id],
    });
  };
  if (offered.length === 0 && !others.isError) return null;
  return (
    <section aria-label="Lessons of earlier sites" className="pt-1" data-testid="offered">
      {others.isError && <p className="m-0 v-unknown">The lessons of other jobs could not be read; they are asked for again.</p>}
      <ul className="m-0 list-none p-0">
        {offered.slice(0, MOST_OFFERED).map(({ lesson, siteIds }) => (
          <li key={lesson.id} className="flex flex-wrap items-baseline gap-x-4">
            <span>
              <b className="v-tight">Lesson of {from(lesson)}:</b> {lesson.words}
              <span className="cap">
                {" "}
                For {siteIds.map((id) => siteNamed(job, id)).join(" and ")}
                {aboutText(lesson, parts)}.
              </span>
            </span>
            <button
              type="button"
              className="press min-h-6 text-line"
              aria-label={`Put on the list: ${lesson.words}`}
              onClick={() => putOnList(lesson, siteIds[0]!)}
            >
              Put it on the list
            </button>
            <button
              type="button"
              className="press min-h-6 text-line"
              aria-label={`Read: ${lesson.words}`}
              onClick={() => change({ lessonsRead: [...now().lessonsRead, lesson.id] })}
            >
              Read
            </button>
          </li>
        ))}
      </ul>
      {offered.length > MOST_OFFERED && <p className="cap m-0">{offered.length - MOST_OFFERED} more once these are read.</p>}
    </section>
  );
};

/** What these ends teach, written down for later ones. */
export const OwnLessons = ({ job, kit, now, change, ends }: LessonsAsk) => {
  const [typed, setTyped] = useKeptDraft<{ words: string; siteId: string; about: string }>(`lesson.${job.job.id}`);
  const { words = "", about = "" } = typed;
  // One typed at another link's ends is of those in view.
  const siteId = ends.find((e) => e.siteId === typed.siteId)?.siteId ?? ends[0]?.siteId ?? "";
  const parts = useMemo(() => partsAt(ends), [ends]);
  const here = kit.lessons.filter((l) => ends.some((e) => e.siteId === l.siteId));
  const add = (): void => {
    const lesson: Lesson = {
      id: crypto.randomUUID(),
      siteId,
      words: words.trim(),
      partId: about.startsWith(PART) ? about.slice(PART.length) : null,
      wall: about.startsWith(WALL) ? (about.slice(WALL.length) as Lesson["wall"]) : null,
    };
    change({ lessons: [...now().lessons, lesson] });
    setTyped({});
  };
  return (
    <section aria-label="Lessons" className="no-print mt-4 border-t border-rule pt-2" data-testid="lessons">
      <h3 className="m-0 text-body font-bold">What these ends teach</h3>
      {here.length > 0 && (
        <ul className="m-0 list-none p-0" aria-label="Learnt here">
          {here.map((l) => (
            <li key={l.id} className="flex items-baseline gap-x-2">
              <span>
                Learnt at {siteNamed(job, l.siteId)}: {l.words}
                <span className="cap">{aboutText(l, parts)}</span>
              </span>
              <RemoveRow
                label={`Take the lesson away: ${l.words}`}
                onClick={() => change({ lessons: now().lessons.filter((x) => x.id !== l.id) })}
              />
            </li>
          ))}
        </ul>
      )}
      <form
        className="mt-1 flex flex-wrap items-end gap-x-4 gap-y-2"
        aria-label="Write a lesson down"
        onSubmit={(e) => {
          e.preventDefault();
          if (words.trim() !== "") add();
        }}
      >
        <div className="min-w-[240px] flex-1">
          <Field
            label="A lesson for later sites"
            value={words}
            maxLength={200}
            onChange={(e) => setTyped({ ...typed, words: e.target.value })}
          />
        </div>
        <Choice label="Learnt at" value={siteId} onChange={(e) => setTyped({ ...typed, siteId: e.target.value })}>
          {ends.map((e) => (
            <option key={e.siteId} value={e.siteId}>
              {siteNamed(job, e.siteId)}
            </option>
          ))}
        </Choice>
        <Choice label="Of use where there is" value={about} onChange={(e) => setTyped({ ...typed, about: e.target.value })}>
          <option value="">any end</option>
          {parts.map(([id, name]) => (
            <option key={id} value={PART + id}>
              {name}
            </option>
          ))}
          {WALLS.filter((w) => w !== "unknown").map((w) => (
            <option key={w} value={WALL + w}>
              a wall of {w}
            </option>
          ))}
        </Choice>
        <button type="submit" className="press min-h-6" disabled={words.trim() === ""}>
          Write it down
        </button>
      </form>
    </section>
  );
};
