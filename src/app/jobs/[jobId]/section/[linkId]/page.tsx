import { readAhead } from "@/app/_server/ahead";
import { SectionSheet } from "@/ui/sheets/section/section-sheet";

const Page = async ({ params }: { params: Promise<{ jobId: string; linkId: string }> }) => {
  const { jobId, linkId } = await params;
  const link = `/api/jobs/${jobId}/links/${linkId}`;
  readAhead(`/api/jobs/${jobId}/verdicts`, link, `${link}/profile`, "/api/hardware", `/api/jobs/${jobId}`);
  return <SectionSheet jobId={jobId} linkId={linkId} />;
};
export default Page;
