import { WireView } from "../wire/WireView";

export default function Wire() {
  return <WireView />;
}
