import type { ErrorBody } from "@/contract";
import { distanceText, type Units } from "./numbers";

/** One sentence for an error: what is wrong with which field, and what is allowed. */
export const errorSentence = (error: ErrorBody, units: Units = "metric"): string => {
  const v = error.values ?? {};
  switch (error.code) {
    case "database-unreachable":
      return "The database does not answer. What you typed is kept here; saving goes on by itself when it is back.";
    case "offline":
      return "The server does not answer. What you typed is kept here; saving goes on by itself when it is back.";
    case "invalid":
      return error.message === undefined
        ? `The field ${error.path ?? ""} is not as expected.`
        : `${error.message.charAt(0).toUpperCase()}${error.message.slice(1)}.`;
    case "same-spot":
      return `${v.name} already stands on this spot: two sites must be at least 2 m apart. Move one, or use ${v.name}.`;
    case "no-roof":
      return `No building is drawn under ${v.name}, so it has no roof edge to go along. Draw its outline on Ground, or choose its mounting points.`;
    case "too-many-designs":
      return `At most ${v.most} designs are kept beside the one in force. Forget one first.`;
    case "same-ends":
      return `A link needs two different sites; both ends are ${v.name}.`;
    case "link-length":
      return `These sites are ${distanceText(units, Number(v.distanceM))} apart; a link may be ${distanceText(units, Number(v.leastM))} to ${distanceText(units, Number(v.mostM))} long.`;
    case "site-in-use":
      return `${v.name} still carries link ${v.link}; take the link away first.`;
    case "site-gone":
      return `${v.name} was taken away; bring it back first.`;
    case "design-in-force":
      return "This link has a design in force already.";
    case "append-only":
      return "What is written there stays; add a new one instead.";
    case "not-allowed":
      return "You may not change this.";
    case "other-window":
      return "Another window of this browser has this edit.";
    case "clash":
      return "Someone else changed this since you opened it.";
    case "not-found":
      return `This ${error.path ?? "thing"} does not exist any more.`;
    case "no-hardware":
      return "The catalogue holds no radio yet; add one on the Gear sheet.";
    case "unknown-reference":
      return "Something named here (a job, a site, a radio or an antenna) does not exist any more.";
    case "bad-body":
      return `What was sent ${error.message ?? "cannot be read"}.`;
    case "hardware-faults":
      return "Nothing was taken in: the file has faults.";
    case "file-fault":
      return `This file cannot be taken in: ${error.message ?? "it cannot be read"}.`;
    case "stopped":
      return "Stopped; nothing was taken in.";
    case "piece-out-of-order":
    case "piece-too-long":
      return "The file changed or broke off while it was sent; choose it again.";
    case "upload-unfinished":
      return `${v.name} has not come whole yet; send it again.`;
    case "import-not-running":
      return "This import is already over.";
    case "not-a-photo":
      return "This is no photo: JPEG, PNG or WebP pictures of up to 3 MB are taken.";
    case "map-unreachable":
      return "The address of the map does not answer.";
    case "map-no-tiles":
      return `The address of the map gave no picture (status ${v.status}).`;
    case "job-exists":
      return `This job is here already, as no. ${v.number}, ${v.name}. Take it in as a copy, or leave it.`;
    case "map-inside":
      return "The address of the map leads to this machine or into its own network, which is not fetched. Whoever runs the server can allow it by name.";
    case "disk-full":
      return `The disk of the server has no room left${v.freeMb === undefined ? "" : ` (${v.freeMb} MB)`}. Nothing was taken in; make room and send it again.`;
    case "quota-job":
      return `Files on their way in take ${v.heldGb} of the ${v.mostGb} GB that one job may have. Wait until some are taken in, or take away a map laid beneath.`;
    case "quota-all":
      return `Files on their way in take ${v.heldGb} of the ${v.mostGb} GB that all jobs together may have. Wait until some are taken in.`;
    case "piece-damaged":
      return "A piece of the file arrived damaged; send it again.";
    case "busy":
      return "Too many files are being looked into at the moment. Try again in a minute.";
    case "too-long":
      return "The question took too long to answer and was given up. Look at a smaller part.";
    case "has-courtyards":
      return "An outline with courtyards cannot be cut; draw its parts anew.";
    case "cross-site":
    case "host-not-allowed":
      return "The server answers only its own pages.";
    case "not-undoable":
      return "This edit cannot be taken back here.";
    default:
      return "Something went wrong in the program; nothing was lost. Try again, and read the server's log if it stays.";
  }
};
