import { index, layout, route, type RouteConfig } from "@react-router/dev/routes";

export default [
  index("routes/shelf.tsx"),
  layout("routes/kit.tsx", { id: "kit" }, [
    route("kit/:kitId/wire", "routes/kit.wire.tsx"),
    route("kit/:kitId/shape", "routes/kit.shape.tsx"),
    route("kit/:kitId/play", "routes/kit.play.tsx"),
    route("kit/:kitId/tune", "routes/kit.tune.tsx"),
    route("kit/:kitId/prove", "routes/kit.prove.tsx"),
    route("kit/:kitId/hand-over", "routes/kit.handOver.tsx"),
  ]),
  route("*", "routes/nowhere.tsx"),
] satisfies RouteConfig;
