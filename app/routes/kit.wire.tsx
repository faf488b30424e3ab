import { WireView } from "../views/WireView";

export default function Wire() {
  return <WireView />;
}
