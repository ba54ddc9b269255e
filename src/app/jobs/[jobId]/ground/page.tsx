import { GroundSheet } from "@/ui/sheets/ground/ground-sheet";

const Page = async ({ params }: { params: Promise<{ jobId: string }> }) => <GroundSheet jobId={(await params).jobId} />;
export default Page;
