import { ProveView } from "../views/prove/ProveView";

export default function Prove() {
  return <ProveView />;
}
