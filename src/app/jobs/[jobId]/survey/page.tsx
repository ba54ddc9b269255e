import { SurveySheet } from "@/ui/sheets/survey/survey-sheet";

const Page = async ({ params }: { params: Promise<{ jobId: string }> }) => <SurveySheet jobId={(await params).jobId} />;
export default Page;
