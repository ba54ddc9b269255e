/** What is wrong with a typed position, and what is allowed. */
export const coordinateFault = (text: string, fault: { error: "form" | "latitude" | "longitude"; receivedDeg?: number }): string => {
  if (fault.error === "latitude") return `Latitude ${fault.receivedDeg}° is out of range; it must be between -90 and 90.`;
  if (fault.error === "longitude") return `Longitude ${fault.receivedDeg}° is out of range; it must be between -180 and 180.`;
  return text.trim() === ""
    ? "Type a latitude and a longitude, for example 47.3000 N, 19.4000 W."
    : `"${text}" is not a position; write latitude and longitude, for example 47.3000 N, 19.4000 W.`;
};
