import { NewPasswordSheet } from "@/ui/sheets/door/come-in-sheets";

const Page = () => <NewPasswordSheet />;
export default Page;
