import { doors } from "@/app/_server/db";
import { handle } from "@/app/_server/handle";
import { letters } from "@/service/people/people";

/** Letters that the program wrote: where no mail server is named, they are read here. */
export const GET = (request: Request): Promise<Response> => handle(request, "see-people", () => letters(doors()));
