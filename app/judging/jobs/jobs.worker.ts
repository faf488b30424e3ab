import { expose } from "comlink";
import { createService } from "./service";

expose(createService());
