import { type KeyboardEvent, useEffect, useState } from "react";

/**
 * useDraft holds what is being typed into a field till Enter or leaving it hands it on. written is the value as
 * it stands; hand takes the text and gives back what is wrong with it, "" where nothing is. What is wrong stays
 * where it was typed, and Escape brings the value back.
 */
export function useDraft(written: string, hand: (text: string) => string) {
  const [text, setText] = useState(written);
  const [wrong, setWrong] = useState("");
  const drop = () => {
    setText(written);
    setWrong("");
  };
  useEffect(drop, [written]); // another value came
  const done = () => {
    const slip = text.trim() === written ? "" : hand(text);
    if (slip) setWrong(slip);
    else drop();
  };
  const input = {
    value: text,
    "aria-invalid": wrong !== "",
    onChange: (e: { target: { value: string } }) => setText(e.target.value),
    onBlur: done,
    onKeyDown: (e: KeyboardEvent) => {
      if (e.key === "Enter") done();
      if (e.key === "Escape") drop();
    },
  };
  return { wrong, input };
}
