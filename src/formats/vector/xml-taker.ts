import type { RawFeature } from "./raw";
import type { JsonGeometry } from "./shapes";

/** Text of one element: some hundred thousand corners. */
export const MOST_TEXT = 20_000_000;

export interface XmlElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
}

export interface XmlPlace {
  readonly properties: RawFeature["properties"];
  readonly geometry: JsonGeometry | null;
}

/** What makes features out of the elements of one format. Names come without their prefix; the path ends with the element itself. */
export interface XmlTaker {
  readonly root: string;
  readonly open: (e: XmlElement, path: readonly string[]) => void;
  readonly text: (text: string) => void;
  readonly close: (name: string, path: readonly string[]) => void;
  /** What became whole since it was last asked. */
  readonly ready: () => readonly XmlPlace[];
}
