"use client";
import { DropdownMenu } from "radix-ui";
import { keepFile } from "../../api/keep-file";
import { pngOf, svgOf, typeInside } from "../../drawing/save-picture";
import type { Paper } from "./paper/use-paper";

/** The drawing taken along: as a file, on the clipboard, on paper. */
export const PictureMenu = ({
  lay,
  title,
  note,
  words,
  fileName,
  say,
}: {
  /** Lays the sheet out as on paper while its drawings are taken. */
  lay: Paper["lay"];
  title: string;
  note: string;
  /** What the sheet says in words, a line each. */
  words: () => readonly string[];
  fileName: string;
  say: (words: string) => void;
}) => {
  const drawn = async (): Promise<string> => {
    const type = await typeInside().catch(() => "");
    return lay((paper) => svgOf([...paper.querySelectorAll<SVGSVGElement>("svg[data-drawing]")], title, note, words(), type));
  };
  const attempt = (work: () => Promise<string>): void => {
    work().then(say, () => say("This browser did not take the picture. Save it as a file instead."));
  };
  const items: readonly (readonly [string, () => void])[] = [
    [
      "Save as SVG",
      () =>
        attempt(async () => {
          keepFile(new Blob([await drawn()], { type: "image/svg+xml" }), `${fileName}.svg`);
          return "Saved as SVG.";
        }),
    ],
    [
      "Save as PNG",
      () =>
        attempt(async () => {
          keepFile(await pngOf(await drawn()), `${fileName}.png`);
          return "Saved as PNG.";
        }),
    ],
    [
      "Copy as PNG",
      () =>
        attempt(async () => {
          await navigator.clipboard.write([new ClipboardItem({ "image/png": drawn().then(pngOf) })]);
          return "The picture is on the clipboard.";
        }),
    ],
    [
      "Copy as SVG",
      () =>
        attempt(async () => {
          await navigator.clipboard.writeText(await drawn());
          return "The drawing is on the clipboard as SVG.";
        }),
    ],
    ["Print this sheet", () => window.print()],
  ];
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="press no-print flex-none text-line">Picture</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="start" sideOffset={6} className="z-10 border-[1.6px] border-ink bg-paper py-1">
          {items.map(([name, run]) => (
            <DropdownMenu.Item
              key={name}
              className="cursor-pointer px-4 py-1.5 text-body outline-none data-[highlighted]:bg-ink data-[highlighted]:text-paper"
              onSelect={run}
            >
              {name}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
};
