import { expose } from "comlink";
import { findNearestMiss } from "#core";
import type { StudyService } from "./studyProtocol";

const service: StudyService = {
  async findMisses(kit, take, fates, told) {
    const misses = [];
    for (const fate of fates) {
      misses.push(findNearestMiss(kit, take, fate));
      told(misses.length);
    }
    return misses;
  },
};

expose(service);
