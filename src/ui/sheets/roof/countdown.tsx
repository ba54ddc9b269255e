"use client";
import { useEffect, useState } from "react";

const BLOCKS = 8;
const KEY = "dry-arc.wait.";

const timeText = (s: number): string => `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, "0")}`;

/** A wait that goes on by itself, whatever is done meanwhile, and over a reload: nobody gives up early. */
export const Countdown = ({ name, seconds }: { name: string; seconds: number }) => {
  const [begunMs, setBegun] = useState<number | null>(null);
  const [nowMs, setNow] = useState(0);
  const key = `${KEY}${name}`;
  useEffect(() => {
    const kept = Number(sessionStorage.getItem(key) ?? "0");
    if (kept > 0 && Date.now() - kept < seconds * 2000) setBegun(kept);
  }, [key, seconds]);
  useEffect(() => {
    if (begunMs === null) return;
    setNow(Date.now());
    const timer = setInterval(() => setNow(Date.now()), 500);
    return () => clearInterval(timer);
  }, [begunMs]);
  const gone = begunMs === null ? 0 : Math.max(0, (nowMs - begunMs) / 1000);
  const left = Math.max(0, seconds - gone);
  const begin = (): void => {
    const at = Date.now();
    sessionStorage.setItem(key, String(at));
    setNow(at);
    setBegun(at);
  };
  return (
    <div className="grid gap-1">
      <div className="flex items-baseline justify-between">
        <span className="font-figure">{name}</span>
        <span className="font-mono">{begunMs === null ? timeText(seconds) : left > 0 ? timeText(left) : "over"}</span>
      </div>
      {begunMs === null ? (
        <button type="button" className="min-h-12 border-[1.6px] border-ink font-figure" onClick={begin}>
          Begin to wait
        </button>
      ) : (
        <Blocks share={seconds === 0 ? 1 : gone / seconds} />
      )}
    </div>
  );
};

/** Time gone, in blocks. */
export const Blocks = ({ share }: { share: number }) => (
  <div className="flex gap-1" aria-hidden="true">
    {Array.from({ length: BLOCKS }, (_, i) => i).map((i) => (
      <span key={i} className={`h-[18px] flex-1 border-[1.6px] border-ink ${share * BLOCKS >= i + 0.999 ? "bg-ink" : ""}`} />
    ))}
  </div>
);
