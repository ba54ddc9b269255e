import { BriefSheet } from "@/ui/sheets/brief/brief-sheet";

const Page = async ({ params }: { params: Promise<{ jobId: string }> }) => <BriefSheet jobId={(await params).jobId} />;
export default Page;
