import { TuneView } from "../tune/TuneView";

export default function Tune() {
  return <TuneView />;
}
