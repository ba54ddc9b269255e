import { ERROR_CODES, type ErrorBody, type ErrorCode } from "@/contract";
import { distanceText, type Units } from "./numbers";
import { troubleText } from "./troubles";

type Values = NonNullable<ErrorBody["values"]>;

const waitText = (s: number): string => (s < 90 ? `${s} s` : `${Math.ceil(s / 60)} min`);

/** What is wrong with which field, and what is allowed, by the code of the error. A code without a sentence does not compile. */
const SENTENCES: Readonly<Record<ErrorCode, (error: ErrorBody, v: Values, units: Units) => string>> = {
  "database-unreachable": () => "The database does not answer. What you typed is kept here; saving goes on by itself when it is back.",
  offline: () => "The server does not answer. What you typed is kept here; saving goes on by itself when it is back.",
  invalid: (error) =>
    error.message === undefined
      ? `The field ${error.path ?? ""} is not as expected.`
      : `${error.message.charAt(0).toUpperCase()}${error.message.slice(1)}.`,
  "same-spot": (_error, v) => `${v.name} already stands on this spot: two sites must be at least 2 m apart. Move one, or use ${v.name}.`,
  "no-roof": (_error, v) =>
    `No building is drawn under ${v.name}, so it has no roof edge to go along. Draw its outline on Ground, or choose its mounting points.`,
  "too-many-designs": (_error, v) => `At most ${v.most} designs are kept beside the one in force. Forget one first.`,
  "same-ends": (_error, v) => `A link needs two different sites; both ends are ${v.name}.`,
  "link-length": (_error, v, units) =>
    `These sites are ${distanceText(units, Number(v.distanceM))} apart; a link may be ${distanceText(units, Number(v.leastM))} to ${distanceText(units, Number(v.mostM))} long.`,
  "hub-remote": (_error, v) => `Link ${v.link} does not end at this hub's site.`,
  "none-left": (_error, v) =>
    `Of ${v.name} ${v.left} ${Number(v.left) === 1 ? "is" : "are"} left in stock; ${v.asked} are asked. Order it, or pick fewer.`,
  "site-in-use": (_error, v) => `${v.name} still carries link ${v.link}; take the link away first.`,
  "site-gone": (_error, v) => `${v.name} was taken away; bring it back first.`,
  "design-in-force": () => "This link has a design in force already.",
  "no-plan": (_error, v) => `This link cannot be worked out yet: ${troubleText(String(v.why))}.`,
  "append-only": () => "What is written there stays; add a new one instead.",
  "not-allowed": () => "This is not open to you. The owner of the firm says who may do what, under People.",
  "signed-out": () => "You are signed out. What you typed is kept here; sign in again and it is saved.",
  "second-factor": () => "The code of your authenticator is needed as well.",
  "wrong-sign-in": () => "The address or the password is not right.",
  "wrong-code": () => "That code is not right, or its time is over.",
  "too-many-tries": (_error, v) => `Too many tries. Wait ${waitText(Number(v.waitS ?? 60))}, then try again.`,
  "link-used": () => "This link was used already, has run out, or was taken back. Ask for a new one.",
  "name-taken": () => "Somebody signs in with this address already.",
  "last-owner": () => "A firm needs an owner who can come in: name another first.",
  "weak-password": (error) => `This password is too easy to guess: ${error.message ?? "choose a longer one"}.`,
  "no-passkeys-here": () => "A passkey needs a name, not a number, in the address of this page. Open it by its name.",
  "mail-failed": () => "The letter could not be sent; it lies under Letters, with its link to hand on yourself.",
  "other-person": () => "Somebody else made this here. It waits in this browser until they sign in again.",
  "other-window": () => "Another window of this browser has this edit.",
  clash: () => "Someone else changed this since you opened it.",
  "not-found": (error) => `This ${error.path ?? "thing"} does not exist any more.`,
  "no-hardware": () => "The catalogue holds no radio yet; add one on the Gear sheet.",
  "unknown-reference": () => "Something named here (a job, a site, a radio or an antenna) does not exist any more.",
  "bad-body": (error) => `What was sent ${error.message ?? "cannot be read"}.`,
  "hardware-faults": () => "Nothing was taken in: the file has faults.",
  "file-fault": (error) => `This file cannot be taken in: ${error.message ?? "it cannot be read"}.`,
  stopped: () => "Stopped; nothing was taken in.",
  "piece-out-of-order": () => "The file changed or broke off while it was sent; choose it again.",
  "piece-too-long": () => "The file changed or broke off while it was sent; choose it again.",
  "upload-unfinished": (_error, v) => `${v.name} has not come whole yet; send it again.`,
  "import-not-running": () => "This import is already over.",
  "not-a-photo": () => "This is no photo: JPEG, PNG or WebP pictures of up to 3 MB are taken.",
  "map-unreachable": () => "The address of the map does not answer.",
  "map-no-tiles": (_error, v) => `The address of the map gave no picture (status ${v.status}).`,
  "job-exists": (_error, v) => `This job is here already, as no. ${v.number}, ${v.name}. Take it in as a copy, or leave it.`,
  "map-inside": () =>
    "The address of the map leads to this machine or into its own network, which is not fetched. Whoever runs the server can allow it by name.",
  "disk-full": (_error, v) =>
    `The disk of the server has no room left${v.freeMb === undefined ? "" : ` (${v.freeMb} MB)`}. Nothing was taken in; make room and send it again.`,
  "quota-job": (_error, v) =>
    `Files on their way in take ${v.heldGb} of the ${v.mostGb} GB that one job may have. Wait until some are taken in, or take away a map laid beneath.`,
  "quota-person": (_error, v) =>
    `Your files on their way in take ${v.heldGb} of the ${v.mostGb} GB that one person may have. Wait until some are taken in, or take away a map laid beneath.`,
  "quota-photos": (_error, v) =>
    `The photos of this job take ${v.heldGb} of the ${v.mostGb} GB that one job may have. The photo stays where it was taken; nothing was kept here.`,
  "quota-all": (_error, v) =>
    `Files on their way in take ${v.heldGb} of the ${v.mostGb} GB that all jobs together may have. Wait until some are taken in.`,
  "piece-damaged": () => "A piece of the file arrived damaged; send it again.",
  busy: () => "Too many files are being looked into at the moment. Try again in a minute.",
  "too-long": () => "The question took too long to answer and was given up. Look at a smaller part.",
  "has-courtyards": () => "An outline with courtyards cannot be cut; draw its parts anew.",
  "cross-site": () => "The server answers only its own pages.",
  "host-not-allowed": () => "The server answers only its own pages.",
  "not-undoable": () => "This edit cannot be taken back here.",
  overtaken: (_error, v) =>
    `What you did to ${v.name === "" ? "this" : v.name} was changed again since by someone else, and stays. Undo once more takes back the step before it.`,
  "import-stopped": () => "This import was stopped; nothing of it was taken in.",
  "hardware-missing": (_error, v) => `${v.name ?? "A radio or antenna"} is not in the catalogue any more; choose another under Gear.`,
  "hardware-in-use": (_error, v) => `${v.name} stands in a design of ${v.job}; choose another there first.`,
  "hardware-changed": (_error, v) => `${v.name} was changed again since; take that back first.`,
  internal: () => "Something went wrong in the program; nothing was lost. Try again, and read the server's log if it stays.",
};

const isCode = (code: string): code is ErrorCode => (ERROR_CODES as readonly string[]).includes(code);

/** One sentence for an error; a server of another version may send a code that is not known here. */
export const errorSentence = (error: ErrorBody, units: Units = "metric"): string =>
  SENTENCES[isCode(error.code) ? error.code : "internal"](error, error.values ?? {}, units);
