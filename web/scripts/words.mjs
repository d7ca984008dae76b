// Lists the words of the page, file by file, in docs/words.md, so that they can be read through and translated.
// What comes of the rules (moves, warnings, checks) is written in core/ and is not among them.
import { readdir, readFile, writeFile } from "node:fs/promises";
import { parseSync } from "vite";

const src = new URL("../src/", import.meta.url);
const out = process.argv[2] ?? new URL("../../docs/words.md", import.meta.url);

/** told are the attributes whose text is seen or heard. */
const told = new Set(["aria-label", "aria-valuetext", "title", "label", "lead", "placeholder", "hint", "text", "name", "what", "legend"]);

/** isClass tells names of styles from words. */
const isClass = (s) => s.split(/\s+/).some((t) => /^-?[a-z0-9]+(-[a-z0-9[\].%/:]+)+$|:|^(flex|grid|btn|figure|block|hidden|relative|absolute|mat)$/.test(t)) && !/[A-Z.,?!…]/.test(s);

/** isWords tells what a maker reads from keys, paths and selectors. */
const isWords = (s) => /[A-Za-z]{2}/.test(s) && !/[[\]{}<>=#|]|^\/|^\.|\/\w+\/|^[a-z]+[A-Z]/.test(s.replaceAll("{…}", "")) && (/[a-z] [a-zA-Z{]/.test(s) || /^[A-Z][a-z]+…?$/.test(s)) && !isClass(s);

const tidy = (s) => s.replace(/\s+/g, " ").trim();
const template = (n) => n.quasis.map((q, i) => q.value.cooked + (i < n.expressions.length ? "{…}" : "")).join("");

/** phrase is the text of an element with its parts in their places, "" where it has none of its own. */
function phrase(element) {
  let own = false;
  const parts = element.children.map((c) => {
    if (c.type === "JSXText") {
      own ||= /[A-Za-z]/.test(c.value);
      return c.value;
    }
    if (c.type !== "JSXExpressionContainer") return "{…}";
    const e = c.expression;
    if (e.type === "Literal" && typeof e.value === "string") return e.value;
    return e.type === "JSXEmptyExpression" ? "" : "{…}";
  });
  return own ? tidy(parts.join("")).replace(/^(\{…\} ?)+|( ?\{…\})+$/g, "").trim() : "";
}

function words(ast) {
  const found = [];
  const add = (s, always) => {
    const t = tidy(s);
    if (t && /[A-Za-z]/.test(t) && (always || isWords(t)) && !found.includes(t)) found.push(t);
  };
  const walk = (n, always) => {
    if (!n || typeof n !== "object") return;
    if (Array.isArray(n)) {
      for (const c of n) walk(c, always);
      return;
    }
    switch (n.type) {
      case "ImportDeclaration":
      case "TSTypeAliasDeclaration":
      case "TSInterfaceDeclaration":
      case "TSTypeAnnotation":
        return;
      case "JSXElement":
      case "JSXFragment":
        add(phrase(n), true);
        break;
      case "JSXAttribute": {
        const name = n.name.name?.name ?? n.name.name;
        if (["className", "d", "style", "path", "key", "id", "href", "type", "viewBox", "points"].includes(name)) return;
        walk(n.value, told.has(name));
        return;
      }
      case "Literal":
        if (typeof n.value === "string") add(n.value, always);
        return;
      case "TemplateLiteral":
        add(template(n), always);
        for (const e of n.expressions) walk(e, false);
        return;
    }
    for (const [k, v] of Object.entries(n)) if (k !== "type" && k !== "start" && k !== "end") walk(v, always && n.type !== "CallExpression");
  };
  walk(ast.body, false);
  return found;
}

const files = (await readdir(src, { recursive: true })).filter((f) => /\.tsx?$/.test(f) && !f.includes(".gen.")).sort();
let page = "# The words of the page\n\nMade by `npm run words`; do not edit. {…} stands for what is put in. The words of moves, warnings and checks are in core/.\n";
for (const f of files) {
  const { program, errors } = parseSync(f, await readFile(new URL(f, src), "utf8"));
  if (errors.length > 0) throw new Error(`${f}: ${errors[0].message}`);
  const list = words(program);
  if (list.length > 0) page += `\n## ${f}\n${list.map((w) => `- ${w}`).join("\n")}\n`;
}
await writeFile(out, page);
