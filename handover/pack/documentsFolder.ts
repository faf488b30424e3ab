/** The folder of a pack that holds documents, if it holds other files too. */
export const DOCUMENTS_FOLDER = "documents";

/** The folder of such a pack that holds the variants: earlier versions of the kit's rules, each as a kit. */
export const VARIANTS_FOLDER = "variants";
