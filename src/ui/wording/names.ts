/** A long name cut from the middle: "Merrow Har…rd Office". */
export const cutMiddle = (name: string, most: number): string => {
  if (name.length <= most) return name;
  const head = Math.ceil((most - 1) / 2);
  return `${name.slice(0, head).trimEnd()}…${name.slice(name.length - (most - 1 - head)).trimStart()}`;
};
