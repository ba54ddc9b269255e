import { FirstSheet } from "@/ui/sheets/door/come-in-sheets";

const Page = () => <FirstSheet />;
export default Page;
