"use client";
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useState } from "react";
import type { Units } from "../wording/numbers";

export type Mode = "system" | "paper" | "night" | "sun";

interface Preferences {
  readonly units: Units;
  readonly mode: Mode;
  readonly setUnits: (units: Units) => void;
  readonly setMode: (mode: Mode) => void;
  /** What a page is best read in, for who has chosen nothing. @returns takes it back. */
  readonly askMode: (mode: Mode) => () => void;
}

const Context = createContext<Preferences>({
  units: "metric",
  mode: "system",
  setUnits: () => undefined,
  setMode: () => undefined,
  askMode: () => () => undefined,
});
const KEY = "dry-arc.preferences";

const read = (): { units?: Units; mode?: Mode } => {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? "{}") as { units?: Units; mode?: Mode };
  } catch {
    return {};
  }
};

/** Units and mode of this person at this machine. */
export const PreferencesProvider = ({ children }: { children: ReactNode }) => {
  const [units, setUnits] = useState<Units>("metric");
  const [mode, setMode] = useState<Mode>("system");
  const [asked, setAsked] = useState<Mode>("system");
  const [loaded, setLoaded] = useState(false);
  useEffect(() => {
    const saved = read();
    if (saved.units === "imperial") setUnits("imperial");
    if (saved.mode !== undefined) setMode(saved.mode);
    setLoaded(true);
  }, []);
  useEffect(() => {
    const shown = mode === "system" ? asked : mode;
    if (shown === "system") delete document.documentElement.dataset.mode;
    else document.documentElement.dataset.mode = shown;
    if (loaded) localStorage.setItem(KEY, JSON.stringify({ units, mode }));
  }, [units, mode, asked, loaded]);
  const askMode = useCallback((wanted: Mode) => {
    setAsked(wanted);
    return () => setAsked("system");
  }, []);
  const value = useMemo(() => ({ units, mode, setUnits, setMode, askMode }), [units, mode, askMode]);
  return <Context.Provider value={value}>{children}</Context.Provider>;
};

export const usePreferences = (): Preferences => useContext(Context);
