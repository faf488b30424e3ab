/** The folder of a pack that holds documents, if it holds other files too. */
export const DOCUMENTS_FOLDER = "documents";
