declare module "vcd-parser" {
  /** Parses a value change dump; used by tests to verify our writer. */
  const VCDParser: { parse(text: string): Promise<unknown> };
  export default VCDParser;
}
