import { PlayView } from "../play/PlayView";

export default function Play() {
  return <PlayView />;
}
