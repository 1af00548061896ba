import { StudiesScreen } from "@/features/studies/StudiesScreen";
import { database } from "@/server/database";
import { studiesRepository } from "@/server/repositories/studies-repository";

export const dynamic = "force-dynamic";

export default function Home() {
  return <StudiesScreen studies={studiesRepository(database()).list()} />;
}
