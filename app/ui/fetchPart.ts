/** Reports that a part of the application was not fetched, with its cure. */
export class NotFetchedError extends Error {
  constructor(cause: unknown) {
    super(
      "Part of this page could not be fetched from the server. Load the page again when the server runs.",
      {
        cause,
      },
    );
  }
}

/**
 * Fetches a part of the application that a page loads when it needs it. Rejects with a NotFetchedError: asking again is no
 * cure, as a browser may keep the failure of a module until the page is loaded again.
 */
export async function fetchPart<Part>(load: () => Promise<Part>): Promise<Part> {
  try {
    return await load();
  } catch (cause) {
    throw new NotFetchedError(cause);
  }
}
