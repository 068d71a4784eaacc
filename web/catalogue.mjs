/**
 * The interface's sentences: taken out of its text modules, and put back in another language while it is built.
 *
 *   node catalogue.mjs            every sentence with its place, as JSON
 *   GENTLE_HEM_LANGUAGE=sk.po     vite builds the interface with what the PO file says in their place
 *
 * A template is one entry with its values numbered, as the core has them: "{0} put away".
 */
import { readdirSync, readFileSync } from "node:fs";
import { join, relative, sep } from "node:path";
import { fileURLToPath } from "node:url";
import PO from "pofile";
import ts from "typescript";

const TEXTS = /(^|\/)text\.ts$/;
const HERE = fileURLToPath(new URL(".", import.meta.url));

/** Whether a string stands where it is a name of the program and nothing that is read. */
function isUnspoken(node) {
  const { parent } = node;
  return (
    ts.isImportDeclaration(parent) ||
    ts.isLiteralTypeNode(parent) ||
    ts.isElementAccessExpression(parent) ||
    ts.isCaseClause(parent) ||
    (ts.isPropertyAssignment(parent) && parent.name === node) ||
    (ts.isBinaryExpression(parent) && parent.operatorToken.kind >= ts.SyntaxKind.EqualsEqualsToken &&
      parent.operatorToken.kind <= ts.SyntaxKind.ExclamationEqualsEqualsToken) ||
    (ts.isCallExpression(parent) && parent.expression !== node)
  );
}

const escaped = (text) => text.replaceAll("{", "{{").replaceAll("}", "}}");

function entryOf(node) {
  if (ts.isTemplateExpression(node)) {
    const parts = [escaped(node.head.text), ...node.templateSpans.map((span, k) => `{${k}}${escaped(span.literal.text)}`)];
    return parts.join("");
  }
  return ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node) ? node.text : null;
}

/** Every sentence of a text module: what it says, and from where to where it stands. */
export function sentencesOf(code, path) {
  const file = ts.createSourceFile(path, code, ts.ScriptTarget.Latest, true);
  const found = [];
  const visit = (node) => {
    const text = entryOf(node);
    if (text !== null && !isUnspoken(node) && /\p{L}{2,}/u.test(text.replace(/\{\d+\}/g, ""))) {
      const start = node.getStart(file);
      found.push({ text, node, start, end: node.getEnd(), line: file.getLineAndCharacterOfPosition(start).line + 1 });
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

/** The same module in another language; the values of a template may come in another order. */
export function inLanguage(code, path, said) {
  let out = "";
  let at = 0;
  for (const one of sentencesOf(code, path)) {
    if (one.start < at || !said[one.text]) continue;
    const spans = ts.isTemplateExpression(one.node) ? one.node.templateSpans : [];
    const values = spans.map(({ expression }) =>
      inLanguage(code.slice(expression.pos, expression.end), path, said),
    );
    out += code.slice(at, one.start) + literal(said[one.text], values);
    at = one.end;
  }
  return out + code.slice(at);
}

function literal(text, values) {
  if (!values.length) return JSON.stringify(text);
  const parts = text.split(/\{(\d+)\}/);
  return `\`${parts
    .map((part, k) => (k % 2 ? `\${${values[Number(part)]}}` : part.replaceAll("{{", "{").replaceAll("}}", "}").replace(/[`\\$]/g, "\\$&")))
    .join("")}\``;
}

/** The plugin that builds the interface in the language of a PO file. */
export function language(path) {
  const said = Object.fromEntries(
    PO.parse(readFileSync(path, "utf8"))
      .items.filter((item) => !item.msgctxt && item.msgstr[0] && !item.flags.fuzzy)
      .map((item) => [item.msgid, item.msgstr[0]]),
  );
  return {
    name: "gentle-hem-language",
    enforce: "pre",
    transform: (code, id) => (TEXTS.test(id) ? inLanguage(code, id, said) : null),
  };
}

function modules(folder) {
  return readdirSync(folder, { recursive: true, encoding: "utf8" })
    .map((name) => join(folder, name))
    .filter((name) => TEXTS.test(name.split(sep).join("/")))
    .sort();
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const all = modules(join(HERE, "src")).flatMap((path) =>
    sentencesOf(readFileSync(path, "utf8"), path).map(({ text, line }) => ({
      text,
      line,
      place: `web/${relative(HERE, path).split(sep).join("/")}`,
    })),
  );
  process.stdout.write(JSON.stringify(all));
}
