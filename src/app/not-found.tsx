import Link from "next/link";
import { Masthead } from "@/ui/parts/Masthead";
import page from "@/ui/parts/page.module.css";

export default function NotFound() {
  return (
    <>
      <Masthead />
      <main className={page.sheet}>
        <h1 className={page.sentence}>There is no such page on this machine.</h1>
        <p>
          Nothing was changed. <Link href="/">Go to your studies</Link>.
        </p>
      </main>
    </>
  );
}
