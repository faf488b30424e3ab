declare module "vcd-parser" {
  /** Reads a value change dump; for tests, which hold our writer against it. */
  const VCDParser: { parse(text: string): Promise<unknown> };
  export default VCDParser;
}
