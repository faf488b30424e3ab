import * as v from "valibot";

/** The leaves that stage documents are made of. */
export const duration = v.pipe(v.string(), v.regex(/^\d+(?:f|(?:\.\d{1,3})?ms)$/));
export const id = v.pipe(v.string(), v.nonEmpty());
export const positive = v.pipe(v.number(), v.minValue(0), v.maxValue(1000));
export const share = v.pipe(v.number(), v.minValue(0), v.maxValue(1));
