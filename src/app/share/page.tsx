import { ShareSheet } from "@/ui/sheets/door/come-in-sheets";

const Page = () => <ShareSheet />;
export default Page;
