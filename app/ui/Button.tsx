import type { ButtonHTMLAttributes } from "react";

const LOOKS = {
  plain: "border border-edge bg-leaf px-3 py-1.5 hover:border-moss",
  strong: "border-2 border-moss bg-moss px-4 py-1.5 font-semibold text-leaf hover:bg-moss-deep",
  quiet: "px-2 py-1 text-moss underline-offset-4 hover:underline aria-pressed:underline",
} as const;

/** A button in one of three looks: plain, strong (at most one per screen), quiet (like a link). */
export function Button({
  look = "plain",
  className = "",
  type = "button",
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { look?: keyof typeof LOOKS }) {
  return (
    <button
      type={type}
      className={`rounded-stone text-sm whitespace-nowrap disabled:opacity-45 ${LOOKS[look]} ${className}`}
      {...rest}
    />
  );
}
