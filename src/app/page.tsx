import { readAhead } from "@/app/_server/ahead";
import { JobsSheet } from "@/ui/sheets/jobs/jobs-sheet";

const Page = () => {
  readAhead("/api/jobs");
  return <JobsSheet />;
};
export default Page;
