const KEY = "dry-arc.client";

/** A name for this browser window, so that its own edits can be told from those of others and undone. */
export const clientId = (): string => {
  try {
    let id = sessionStorage.getItem(KEY);
    if (id === null) {
      id = crypto.randomUUID();
      sessionStorage.setItem(KEY, id);
    }
    return id;
  } catch {
    return "no-storage";
  }
};
