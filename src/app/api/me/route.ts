import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { auth, sharedSecret, signInIsOn, whoAsks } from "@/app/_server/who";
import type { MeDto } from "@/contract";
import { nobodyYet, organisationById } from "@/data/people";
import { deviceEnd } from "@/service/people/account";
import { mustForget } from "@/service/people/come-in";

/** Who asks, and what of this server is open to them. */
export const GET = (request: Request): Promise<Response> =>
  handle(request, "open", async (): Promise<MeDto> => {
    const signIn = signInIsOn();
    const who = await whoAsks(request);
    if (who !== null)
      return {
        signIn,
        first: false,
        forget: null,
        shareOver: false,
        person: {
          id: who.personId,
          name: who.name,
          role: who.role,
          organisation: who.veil === null ? (await organisationById(doors(), who.organisationId)).name : "",
          sheets: who.sheets,
          allJobs: who.jobIds === null,
          byShare: who.shareId !== null,
          identityOut: who.veil !== null,
          deviceEndsAt: who.deviceId === null ? null : await deviceEnd(doors(), who.deviceId),
        },
      };
    const held = await auth().api.getSession({ headers: request.headers });
    const deviceId = (held?.session as { deviceId?: string | null } | undefined)?.deviceId ?? null;
    const shareOver = held === null && sharedSecret(request) !== null;
    return {
      signIn,
      shareOver,
      first: await nobodyYet(doors()),
      forget: deviceId === null ? null : await mustForget(doors(), deviceId),
      person: null,
    };
  });
