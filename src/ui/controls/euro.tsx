"use client";
import { useOpen } from "../state/me";
import { euroText } from "../wording/gear";

const nothing = (): string => "";

/** Prices in words; nothing for whoever is not to see any: "not stated" would be a statement. */
export const usePriceText = (): ((price: number | null) => string) => (useOpen().prices ? euroText : nothing);

export const Euro = ({ of }: { of: number | null }) => <>{usePriceText()(of)}</>;
