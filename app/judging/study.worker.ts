import { expose } from "comlink";
import { findNearestMiss, type RunRules } from "#core";
import { compileStage, prepareKit, runStaged } from "#stage";
import type { StudyService } from "./studyProtocol";

const onStage: RunRules = (kit, program, columns) =>
  runStaged(program, columns, compileStage(kit, program)).trace;

const service: StudyService = {
  async findMisses(kit, take, fates, told) {
    const misses = [];
    for (const fate of fates) {
      misses.push(findNearestMiss(prepareKit(kit), take, fate, undefined, onStage));
      told(misses.length);
    }
    return misses;
  },
};

expose(service);
