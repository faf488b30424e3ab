import { PlayView } from "../views/PlayView";

export default function Play() {
  return <PlayView />;
}
