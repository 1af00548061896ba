import { StudiesScreen } from "@/features/studies/StudiesScreen";
import { database } from "@/server/database";
import { studiesRepository } from "@/server/repositories/studies-repository";
import { StorageError } from "@/server/storage-faults";
import { TAKE_BACK_DAYS } from "@/server/study-end";
import { ThemedPlace } from "@/ui/theme/ThemeProvider";
import { fromHouse, HouseFault } from "./house-fault";

export const dynamic = "force-dynamic";

export default function Home() {
  const found = fromHouse("page.studies", () => {
    const studies = studiesRepository(database());
    return { studies: studies.list(), deleted: studies.deleted() };
  });
  if (found instanceof StorageError) return <HouseFault fault={found} />;
  return (
    <ThemedPlace>
      <StudiesScreen {...found} days={TAKE_BACK_DAYS} />
    </ThemedPlace>
  );
}
