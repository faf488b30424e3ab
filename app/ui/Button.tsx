import type { ButtonHTMLAttributes } from "react";

const LOOKS = {
  plain: "border border-line bg-leaf px-3 py-1.5 hover:border-moss",
  strong: "border-2 border-moss bg-moss px-4 py-1.5 font-semibold text-leaf hover:bg-moss-deep",
  quiet: "px-2 py-1 text-moss underline-offset-4 hover:underline",
} as const;

/** A button in the house's three looks: plain, strong (one a screen at most), quiet (as a link). */
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
