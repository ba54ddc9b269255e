import { asAsker, programFor } from "../data/actor";
import { Refused } from "../data/clash";
import type { Db } from "../data/client";
import { emailTaken, newOrganisation } from "../data/people";
import { invite } from "../service/people/come-in";

/**
 * Opens another firm on this installation: nothing of any other is there for it, but what ships. Its first owner comes in by a link.
 * @param doors the database as the door sees it. @returns the link: it works once, within a week.
 */
export const openFirm = async (doors: Db, p: { readonly name: string; readonly email: string }, origin: string): Promise<string> => {
  if (await emailTaken(doors, p.email)) throw new Refused("name-taken", "email");
  const id = await newOrganisation(doors, p.name);
  const program = { ...programFor(id), name: "Whoever keeps this server" };
  const { url } = await asAsker(program, () =>
    invite(doors, { email: p.email, becomes: { role: "owner", jobIds: null, sheets: null } }, origin),
  );
  return url;
};
