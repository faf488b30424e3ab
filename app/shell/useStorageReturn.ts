import { useEffect } from "react";
import { useRevalidator } from "react-router";
import { useStored } from "../storage/context";
import { isUnread } from "../storage/status";

/** Loads the page again when a storage that could not be read answers. */
export function useStorageReturn(): void {
  const { storage } = useStored();
  const { revalidate } = useRevalidator();
  useEffect(
    () =>
      storage.subscribe((now, before) => {
        if (isUnread(before) && !isUnread(now)) void revalidate();
      }),
    [storage, revalidate],
  );
}
