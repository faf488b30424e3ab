import { ProveView } from "../prove/ProveView";

export default function Prove() {
  return <ProveView />;
}
