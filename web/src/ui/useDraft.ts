import { type KeyboardEvent, useState } from "react";
import { useForm } from "react-hook-form";
import { useRefusal } from "./refusals";

/**
 * useDraft holds what is being typed into a field till Enter or leaving it hands it on. written is the value as
 * it stands; hand takes the text and gives back what is wrong with it, "" where nothing is. What is wrong stays
 * where it was typed, and Escape brings the value back. So does what the server refuses of the value at path: the
 * document has its old value again, the field what was typed.
 */
export function useDraft(written: string, hand: (text: string) => string, path?: string) {
  const [handed, setHanded] = useState({ text: written, from: written });
  const back = useRefusal(path) !== "" && written === handed.from;
  const form = useForm({ values: { text: back ? handed.text : written }, shouldUnregister: false });
  const done = () => {
    const text = form.getValues("text");
    const wrong = text.trim() === written ? "" : hand(text);
    if (wrong) form.setError("text", { message: wrong });
    else {
      setHanded({ text, from: written });
      form.reset({ text: written });
    }
  };
  const { onBlur: _, ...input } = form.register("text");
  return {
    wrong: form.formState.errors.text?.message ?? "",
    input: {
      ...input,
      onBlur: done,
      onKeyDown: (e: KeyboardEvent) => {
        if (e.key === "Enter" && !e.shiftKey) done();
        if (e.key === "Escape") form.reset({ text: written });
      },
    },
  };
}
