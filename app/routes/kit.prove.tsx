import { ComingView } from "../views/ComingView";

export default function Prove() {
  return (
    <ComingView
      title="Prove"
      line="What must and must not happen in each take, checked at every edit, with the frames of slip where one fails, will be here."
    />
  );
}
