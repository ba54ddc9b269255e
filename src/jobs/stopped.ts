/** The person stopped an import that was under way. */
export class Stopped extends Error {
  constructor() {
    super("stopped");
    this.name = "Stopped";
  }
}
