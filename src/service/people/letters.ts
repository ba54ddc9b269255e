import { eq, sql } from "drizzle-orm";
import { createTransport } from "nodemailer";
import type { Db } from "../../data/client";
import { logFault } from "../../data/log";
import { mail } from "../../data/schema-people";

/** Whether a mail server is named: letters go out then, and are only kept to be read otherwise. */
export const mailGoes = (): boolean => (process.env.DRYARC_SMTP_URL ?? "") !== "";

/** A letter that is on its way is kept without what opens a door: it is no second way in. */
const withoutSecret = (body: string): string => body.replace(/#[\w-]{22}\b/g, "#(sent)");

const SEND_MS = 15_000;

/** Writes a letter, and sends it where a mail server is named. @returns false when it could not be sent. */
export const writeLetter = async (
  db: Db,
  letter: { readonly organisationId: string; readonly to: string; readonly subject: string; readonly body: string },
): Promise<boolean> => {
  const [row] = await db.insert(mail).values(letter).returning({ id: mail.id });
  if (!mailGoes()) return true;
  const transport = createTransport({
    url: process.env.DRYARC_SMTP_URL!,
    connectionTimeout: SEND_MS,
    greetingTimeout: SEND_MS,
    socketTimeout: SEND_MS,
  } as never);
  try {
    await transport.sendMail({
      from: process.env.DRYARC_MAIL_FROM ?? "Dry Arc <dry-arc@localhost>",
      to: letter.to,
      subject: letter.subject,
      text: letter.body,
    });
    await db
      .update(mail)
      .set({ sentAt: sql`now()`, body: withoutSecret(letter.body) })
      .where(eq(mail.id, row!.id));
    return true;
  } catch (error) {
    logFault("mail", error);
    await db
      .update(mail)
      .set({ fault: error instanceof Error ? error.message.slice(0, 200) : "not sent" })
      .where(eq(mail.id, row!.id));
    return false;
  } finally {
    transport.close();
  }
};
