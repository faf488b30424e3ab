import { ComingView } from "../views/ComingView";

export default function Tune() {
  return (
    <ComingView
      title="Tune"
      line="Two variants side by side on the same takes, sweeps of a number, simulated players, and other frame rates will be here."
    />
  );
}
