/** Calls back after a time; sooner when the network comes back. */
export const laterOrOnline = (ms: number, work: () => void): void => {
  const timer = setTimeout(go, ms);
  window.addEventListener("online", go, { once: true });
  function go(): void {
    clearTimeout(timer);
    window.removeEventListener("online", go);
    work();
  }
};
