import { AccountSheet } from "@/ui/sheets/account/account-sheet";

const Page = () => <AccountSheet />;
export default Page;
