import { TuneView } from "../views/tune/TuneView";

export default function Tune() {
  return <TuneView />;
}
