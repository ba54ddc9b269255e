import { SignInSheet } from "@/ui/sheets/door/sign-in-sheet";

const Page = () => <SignInSheet />;
export default Page;
