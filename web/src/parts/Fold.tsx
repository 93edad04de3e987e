import { useState, type ReactNode } from "react";
import { Touch } from "./Touch";

/** Something that is not needed now, behind one touch. */
export function Fold({
  words,
  children,
  className = "",
}: {
  words: string;
  children: ReactNode;
  className?: string;
}) {
  const [open, setOpen] = useState(false);
  return (
    <div className={open ? `w-full ${className}` : className}>
      <Touch expanded={open} onPress={() => setOpen(!open)}>
        {words} {open ? "▴" : "▾"}
      </Touch>
      {open && <div className="mt-3">{children}</div>}
    </div>
  );
}
