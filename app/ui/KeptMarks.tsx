import { Children, cloneElement, Fragment, isValidElement, type ReactNode } from "react";
import { leadingMarks } from "./leadingMarks";

/** Returns whether a child is a part of the sentence that one edits: a component, no text or markup. */
const isPart = (child: ReactNode): boolean => isValidElement(child) && typeof child.type !== "string";

/** Returns children as one list, those of fragments in their place. */
function flatten(children: ReactNode, prefix = ""): ReactNode[] {
  return Children.toArray(children).flatMap(child => {
    if (!isValidElement<{ children?: ReactNode }>(child)) return child === "" ? [] : [child];
    const key = `${prefix}${child.key}`;
    return child.type === Fragment ? flatten(child.props.children, key) : [cloneElement(child, { key })];
  });
}

/** Groups each part with the marks that follow it directly. */
function keepMarks(children: readonly ReactNode[]): ReactNode[] {
  const kept: ReactNode[] = [];
  for (const child of children) {
    const before = kept.at(-1);
    const marks = typeof child === "string" ? leadingMarks(child) : "";
    if (marks && isValidElement(before) && isPart(before)) {
      kept.pop();
      kept.push(
        <span key={before.key} className="whitespace-nowrap">
          {before}
          {marks}
        </span>,
        (child as string).slice(marks.length),
      );
    } else kept.push(child);
  }
  return kept;
}

/**
 * Children of a sentence, with each comma, period or similar mark kept on the line of the part before it: a browser
 * may otherwise begin a line with it. A part followed by a mark is not broken, so it is a single word, no list.
 */
export function KeptMarks({ children }: { children: ReactNode }) {
  return <>{keepMarks(flatten(children))}</>;
}
