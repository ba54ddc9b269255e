export {
  area,
  type Block,
  type Box,
  circle,
  hatch,
  hatchStrokes,
  line,
  type Mark,
  PAPERS,
  type Page,
  type Paper,
  PT_PER_MM,
  polyline,
  rect,
  type TextMark,
  text,
} from "./mark";
export { cutText, textWidthPt, wrapText } from "./measure";
