import { keyFrame, keySource, sourceId, type Program } from "../../program/program";
import type { Trace } from "../trace";

/** Returns the number of edges of a fire or a request. Only notes of these two kinds have edges. */
export function edgeCountOf(trace: Trace, note: number): number {
  return trace.payload[trace.at[note]!]!;
}

/** Returns the key (see edgeKey) of edge `k` of a fire or a request, counted from 0. */
export function edgeOf(trace: Trace, note: number, k: number): number {
  return trace.payload[trace.at[note]! + 1 + k]!;
}

/** Returns the keys of all edges of a fire or a request, in the order of their creation. */
export function edgesOf(trace: Trace, note: number): number[] {
  const edges: number[] = [];
  for (let k = 0; k < edgeCountOf(trace, note); k++) edges.push(edgeOf(trace, note, k));
  return edges;
}

/** Returns the edges of a fire as files have them: `[id of the control or stick, frame]`, each once. */
export function formatEdges(program: Program, trace: Trace, note: number): [string, number][] {
  const edges: [string, number][] = [];
  for (const key of edgesOf(trace, note)) {
    const frame = keyFrame(program, key);
    const id = sourceId(program, keySource(program, key));
    if (!edges.some(edge => edge[0] === id && edge[1] === frame)) edges.push([id, frame]);
  }
  return edges;
}
