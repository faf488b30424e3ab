import { index, route, type RouteConfig } from "@react-router/dev/routes";
import { VERBS } from "./shell/verbs";

export default [
  index("routes/shelf.tsx"),
  route("new", "routes/newKit.tsx"),
  route("kit/:kitId", "routes/kit.tsx", { id: "kit" }, [
    index("routes/kit.index.tsx"),
    ...VERBS.map(verb => route(verb.path, verb.route)),
  ]),
  route("*", "routes/nowhere.tsx"),
] satisfies RouteConfig;
