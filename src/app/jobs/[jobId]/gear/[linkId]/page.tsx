import { readAhead } from "@/app/_server/ahead";
import { RackSheet } from "@/ui/sheets/gear/rack/rack-sheet";

const Page = async ({ params }: { params: Promise<{ jobId: string; linkId: string }> }) => {
  const { jobId, linkId } = await params;
  const link = `/api/jobs/${jobId}/links/${linkId}`;
  readAhead(`/api/jobs/${jobId}/verdicts`, link, `${link}/profile`, "/api/hardware", `/api/jobs/${jobId}`, `/api/jobs/${jobId}/limits`);
  return <RackSheet jobId={jobId} linkId={linkId} />;
};
export default Page;
