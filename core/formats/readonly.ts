/** A document type with every level made readonly; tuples keep their length. */
export type DeepReadonly<T> = T extends readonly unknown[]
  ? { readonly [Place in keyof T]: DeepReadonly<T[Place]> }
  : T extends object
    ? { readonly [Key in keyof T]: DeepReadonly<T[Key]> }
    : T;
