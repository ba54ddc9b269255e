import { useState } from "react";

/** A row as it was when its form was opened on it: it stays so while others change the row. @returns also how another is taken for it. */
export const useOpened = <R extends { readonly id: string }>(row: R | undefined): [R | undefined, (row: R) => void] => {
  const [opened, setOpened] = useState(row);
  if (opened?.id !== row?.id) setOpened(row);
  return [opened?.id === row?.id ? opened : row, setOpened];
};
