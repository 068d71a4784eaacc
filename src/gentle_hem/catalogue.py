"""All sentences in one catalogue, and the program in another language.

modules ──► sentences, each with its places ──► catalogue.pot ──(a translator)──► sk.po
modules, read in with sk.po ──► the same program, its sentences Slovak; not a line of a module is changed

Sentences are found where they stand: whatever is given to a function that speaks, and whatever reads like a sentence.
A new part needs nothing here. An f-string is one entry with its values numbered: "{0} on the {1}"; a translation may
turn their order round. What a sentence names (pieces, edges, inputs of sums) is an entry of its own, with the context
NAME, since the program goes by it.
"""

from __future__ import annotations

import ast
import json
import re
import string
import subprocess
import sys
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from importlib.abc import MetaPathFinder
from importlib.machinery import ModuleSpec, PathFinder, SourceFileLoader
from pathlib import Path
from types import CodeType, ModuleType
from typing import Any

HERE = Path(__file__).parent
PACKAGES = ("core", "api")
"""Whose sentences are taken out: the trade's, and what the server says of what it is asked."""

NAME = "name"
"""The context of an entry that is a name and no sentence."""

LABELS = frozenset(
    {
        "about", "asked", "choice", "edge_word", "length", "listed", "number", "number_between", "percent", "share",
        "share_word", "work", "_share", "_plus", "_usual", "Estimate", "Family",
    }
)  # fmt: skip
"""Functions and classes to which words are given to be spoken, be it a single one."""

SPEAKS = LABELS | {
    "stop", "warn", "note", "refused", "Remedy", "CannotMake", "CannotDraw", "NoSuchEdge", "UsedUp", "Try", "Seen",
    "Term", "Taking", "Way", "Slip", "step", "line", "Before", "Operation", "Advice", "Told", "Hint", "Judged", "say",
    "with_changes", "_disagree", "stated", "made", "Tried", "Refusal", "LengthError", "ValueError", "NotMeasured",
    "NotAnAnswer", "HTTPException", "also", "laid_as", "_alike", "_Alike", "says", "not_taken", "Row", "Field",
}  # fmt: skip
"""And those to which sentences are; a single word given to these is a name."""

ASKED_OF = frozenset({"about", "step", "work"})
"""Of these, what is asked of something: ``paper.step(…)``; a function of that name is another thing."""

CODED = frozenset(
    {
        "stop", "warn", "note", "refused", "Remedy", "Try", "Seen", "Way", "Operation", "Family", "Term", "Taking",
        "Field", "_share", "_plus", "_usual",
    }
)  # fmt: skip
"""Of these the first thing given is a code."""

GOES_BY = frozenset(
    {
        "alias", "at", "code", "default", "discriminator", "edge", "key", "kind", "pattern", "piece", "recipe",
        "school", "sort", "what",
    }
)  # fmt: skip
"""Things given by name that the program goes by."""

SPOKEN_FIELDS = frozenset({"title", "sentences", "words", "noun", "label", "help"})
"""Attributes of a part that are spoken."""

SAYS = re.compile(r"_?(say|said|spoken|listed|edges_of)")
"""Functions whose answer is spoken."""

NAMES = frozenset(
    {
        "Edge", "Mark", "Notch", "Piece", "Run", "Seam", "Sign", "Stretch", "seam_of", "seam_of_pair", "seam_of_layers",
        "shaped",
    }
)  # fmt: skip
"""What is given a name that the program goes by."""

WORD = re.compile(r"[a-z]{2,}")
NO_WORDS = re.compile(r"^[\w.]*_[\w.]*$|^\w+(\.\w+)+$|^(SELECT|PRAGMA|VACUUM|M\d|attachment;)|charset=|'self'")
"""What the program goes by (word_by_word), asks its records, draws, or says to browsers."""

LOWER = re.compile(r"[a-z]+(,? [a-z]+)*")
"""What a name looks like."""

LISTED = re.compile(r"[a-z][,:;] [a-z0-9]")
"""A text with one clause after another is said."""

READS = re.compile(r"^[A-Z“\"][^{}]*[a-z ]|[.?!:;]\s*$|^[,;]? [a-z({]|\}[,;:] [a-z]", re.DOTALL)
"""What reads like a sentence, or like a part of one: it begins as one, ends as one, or goes on where another ended."""


@dataclass(frozen=True, slots=True)
class Entry:
    """A sentence or a name, where it stands, and what it is."""

    text: str
    place: str
    line: int
    context: str = ""


class _Found:
    """The strings of a module that are spoken, by the place of their node."""

    def __init__(self) -> None:
        self.nodes: dict[int, ast.Constant | ast.JoinedStr] = {}

    def look(self, node: ast.AST, spoken: bool = False) -> None:
        match node:
            case ast.Expr(value=ast.Constant()):
                return  # a docstring
            case ast.Constant(value=str(text)):
                if _is_said(text, spoken):
                    self.nodes[id(node)] = node
            case ast.JoinedStr():
                if _is_said(_template(node), spoken):
                    self.nodes[id(node)] = node
                for part in node.values:
                    if isinstance(part, ast.FormattedValue):
                        self.look(part.value)
            case ast.Call():
                self._called(node, spoken)
            case ast.Compare() | ast.Subscript(value=ast.Name(id="Literal")):
                return
            case ast.Subscript():
                self.look(node.value)
                if isinstance(node.slice, ast.Tuple):  # Annotated[…, between(…, "of what")]
                    self._all(node.slice.elts)
            case ast.Lambda():
                self.look(node.body, spoken)
            case ast.FunctionDef(name=name) if SAYS.match(name):
                for one in ast.walk(node):
                    if isinstance(one, ast.Return) and one.value is not None:
                        self.look(one.value, True)
                self._all(node.body)
            case ast.Tuple(elts=[first, ast.Constant(value=str()) as said]) if _is_value(first):
                self.look(said, True)
            case ast.Dict():
                self._all(node.values, bool(node.keys) and all(map(_is_value, node.keys)))
            case ast.ListComp() | ast.GeneratorExp():
                self.look(node.elt, spoken)
                self._all(node.generators)
            case ast.Assign(targets=[ast.Name(id=name)], value=ast.Constant(value=str(text))) if (
                name.isupper() and LOWER.fullmatch(text.strip(" ,"))
            ):
                return  # a part of a name, and entered as one
            case ast.Assign(targets=[ast.Name(id=name)]) | ast.AnnAssign(target=ast.Name(id=name)):
                if isinstance(node, ast.AnnAssign):
                    self.look(node.annotation)
                if node.value is not None:
                    self.look(node.value, name in SPOKEN_FIELDS)
            case ast.BinOp() | ast.IfExp() | ast.BoolOp() | ast.List() | ast.Tuple() | ast.Starred():
                if isinstance(node, ast.IfExp):
                    self.look(node.test)
                self._all((one for one in ast.iter_child_nodes(node) if one is not getattr(node, "test", None)), spoken)
            case _:
                self._all(ast.iter_child_nodes(node))

    def _all(self, nodes: Iterable[ast.AST], spoken: bool = False) -> None:
        for one in nodes:
            self.look(one, spoken)

    def _called(self, node: ast.Call, spoken: bool) -> None:
        name = getattr(node.func, "attr", getattr(node.func, "id", ""))
        if name in ("compile", "getLogger", "removeprefix", "getattr", "exception", "warning", "TypeError", "KeyError"):
            return
        speaks = (name in SPEAKS and (name not in ASKED_OF or isinstance(node.func, ast.Attribute))) or (
            spoken and name == "get"
        )
        self.look(node.func.value if isinstance(node.func, ast.Attribute) else node.func, speaks)
        for k, given in enumerate(node.args):
            if (name in NAMES and k == 0) or (speaks and name not in LABELS and _is_single(given)):
                continue
            if speaks and isinstance(given, ast.Tuple) and len(given.elts) == 2:  # a value and how it is spoken
                self.look(given.elts[0], not isinstance(given.elts[0], ast.Constant))
                self.look(given.elts[1], True)
            else:
                self.look(given, speaks and not (k == 0 and name in CODED))
        for keyword in node.keywords:
            if keyword.arg not in GOES_BY and not (speaks and name not in LABELS and _is_single(keyword.value)):
                self.look(keyword.value, speaks)


def _is_single(node: ast.AST) -> bool:
    """Whether it is a single word, which may be what the program goes by."""
    return isinstance(node, ast.Constant) and isinstance(node.value, str) and bool(re.fullmatch("[a-z]+", node.value))


def _is_value(node: ast.AST | None) -> bool:
    """Whether it is a value that a word stands for, and no word itself."""
    return isinstance(node, ast.UnaryOp) or (isinstance(node, ast.Constant) and not isinstance(node.value, str))


def _is_said(text: str, spoken: bool) -> bool:
    """Whether a text is spoken: it has words, and is given to be spoken or reads like a sentence."""
    if not WORD.search(re.sub(r"\{[^{}]*\}", "", text)) or NO_WORDS.search(text):
        return False
    if "{" not in text and LISTED.search(text):
        return True
    return spoken or (bool(READS.search(text)) and " " in text.strip()) or bool(re.fullmatch(r"[A-Z][a-z]{2,}", text))


def _template(node: ast.JoinedStr) -> str:
    """An f-string as one text, its values numbered."""
    parts, k = [], 0
    for part in node.values:
        if isinstance(part, ast.Constant):
            parts.append(str(part.value).replace("{", "{{").replace("}", "}}"))
        else:
            parts.append(f"{{{k}}}")
            k += 1
    return "".join(parts)


class _Turned(ast.NodeTransformer):
    """A module with its sentences in another language."""

    def __init__(self, said: Mapping[int, Any], spoken: Mapping[str, str]) -> None:
        self.said, self.spoken = said, spoken

    def visit_Constant(self, node: ast.Constant) -> ast.AST:
        if id(node) not in self.said:
            return node
        return ast.copy_location(ast.Constant(self.spoken.get(str(node.value)) or node.value), node)

    def visit_JoinedStr(self, node: ast.JoinedStr) -> ast.AST:
        is_said, template = id(node) in self.said, _template(node)
        values = [self.visit(part) for part in node.values if isinstance(part, ast.FormattedValue)]
        if not is_said:
            self.generic_visit(node)
            return node
        parts: list[ast.expr] = []
        for text, field, _, _ in string.Formatter().parse(self.spoken.get(template) or template):
            if text:
                parts.append(ast.Constant(text))
            if field is not None:
                parts.append(_named(values[int(field)]))
        return ast.copy_location(ast.JoinedStr(parts), node)


def _named(value: ast.FormattedValue) -> ast.FormattedValue:
    """A value in a sentence: a name is spoken, anything else stands as it is."""
    if value.format_spec is not None or value.conversion != -1:
        return value
    call = ast.Call(ast.Name("__named__", ast.Load()), [value.value], [])
    return ast.FormattedValue(call, -1, None)


def entries_of(source: str, place: str) -> Iterator[Entry]:
    """The sentences and names of one module."""
    tree = ast.parse(source)
    found = _Found()
    found.look(tree)
    for node in found.nodes.values():
        yield Entry(_template(node) if isinstance(node, ast.JoinedStr) else str(node.value), place, node.lineno)
    yield from _names(tree, place)


def _names(tree: ast.AST, place: str) -> Iterator[Entry]:
    """The names a module gives: to what garments are made of, and to the inputs of its sums."""
    for node in ast.walk(tree):
        for given in _given_as_names(node):
            text = given.value if isinstance(given, ast.Constant) else None
            if isinstance(text, str) and LOWER.fullmatch(text.strip(" ,")):
                yield Entry(text.strip(" ,"), place, getattr(given, "lineno", 0), NAME)
        if isinstance(node, ast.Call) and getattr(node.func, "attr", "") == "work":
            for keyword in node.keywords:
                if keyword.arg and keyword.arg not in GOES_BY:
                    yield Entry(keyword.arg.replace("_", " "), place, node.lineno, NAME)
        if isinstance(node, ast.Subscript) and getattr(node.value, "id", "") == "Literal":
            for one in ast.walk(node.slice):
                if isinstance(one, ast.Constant) and isinstance(one.value, str) and "_" in one.value:
                    yield Entry(one.value.replace("_", " "), place, node.lineno, NAME)


def _given_as_names(node: ast.AST) -> Iterable[ast.AST | None]:
    """What a node gives names by: keys, members of an enumeration, names of edges and seams, constants."""
    match node:
        case ast.Dict():
            return node.values if all(isinstance(key, ast.Attribute) for key in node.keys) else node.keys
        case ast.Tuple():
            return node.elts
        case ast.ClassDef() if any(getattr(base, "id", "") == "StrEnum" for base in node.bases):
            return [one.value for one in node.body if isinstance(one, ast.Assign)]
        case ast.Call() if getattr(node.func, "id", getattr(node.func, "attr", "")) in NAMES:
            return node.args[:1]
        case ast.Assign(targets=[ast.Name(id=name)]) if name.isupper():
            return [node.value]
    return ()


def entries(root: Path = HERE) -> Iterator[Entry]:
    """Every sentence and name of the program, module by module."""
    for package in PACKAGES:
        for path in sorted((root / package).rglob("*.py")):
            yield from entries_of(path.read_text(encoding="utf-8"), path.relative_to(root).as_posix())


def interface_entries(web: Path) -> list[Entry]:
    """Every sentence of the interface, whose sources lie in a folder; they are read by its own tools."""
    told = subprocess.run(["node", "catalogue.mjs"], cwd=web, capture_output=True, text=True, check=True).stdout
    return [Entry(one["text"], one["place"], one["line"]) for one in json.loads(told)]


@dataclass(frozen=True)
class Language:
    """A language: how each sentence is said in it, and each name."""

    sentences: Mapping[str, str]
    names: Mapping[str, str]

    @classmethod
    def read(cls, path: Path) -> Language:
        """The language of a PO file; what it leaves out stays as it is. Raises BadLanguage with a sentence."""
        import polib  # here: only who speaks another language waits for it

        try:
            file = polib.pofile(str(path))
        except (OSError, UnicodeDecodeError) as wrong:
            raise BadLanguage(f"{path} cannot be read as a PO file: {wrong}") from None
        told = [one for one in file if one.msgstr and "fuzzy" not in one.flags]
        for one in told:
            if fields(one.msgid) != fields(one.msgstr):
                raise BadLanguage(
                    f"{path}, line {one.linenum}: the translation of “{one.msgid}” must have the same words in braces "
                    f"({', '.join(sorted(fields(one.msgid))) or 'none'})."
                )
        return cls(
            {one.msgid: one.msgstr for one in told if one.msgctxt != NAME},
            {one.msgid: one.msgstr for one in told if one.msgctxt == NAME},
        )


class BadLanguage(ValueError):  # noqa: N818  (it is what the file is)
    """A catalogue that cannot be spoken; the sentence says why."""


def fields(text: str) -> frozenset[str]:
    """What stands in braces in a sentence, and which words its bracketed parts wait for."""
    return frozenset(re.findall(r"\{([\w.]*)\}", text)) | frozenset(re.findall(r"\[([\w.=|,]+):", text))


class _InLanguage(SourceFileLoader):
    """Reads a module in with its sentences in another language; nothing of it is kept on the disk."""

    language: Language

    def get_code(self, fullname: str) -> CodeType:
        tree = ast.parse(self.get_data(self.path), self.path)
        found = _Found()
        found.look(tree)
        turned = _Turned(found.nodes, self.language.sentences).visit(tree)
        return compile(ast.fix_missing_locations(turned), self.path, "exec")

    def exec_module(self, module: ModuleType) -> None:
        module.__dict__["__named__"] = _spoken_name
        super().exec_module(module)


def _spoken_name(value: Any) -> Any:
    from gentle_hem.core.tongue import named

    return named(str(value)) if isinstance(value, str) else value


class _Finder(MetaPathFinder):
    def __init__(self, language: Language) -> None:
        self.language = language

    def find_spec(self, fullname: str, path: Any, target: ModuleType | None = None) -> ModuleSpec | None:
        if not fullname.startswith(tuple(f"gentle_hem.{package}." for package in PACKAGES)):
            return None
        spec = PathFinder.find_spec(fullname, path, target)
        if spec is None or not isinstance(spec.loader, SourceFileLoader):
            return spec
        spec.loader = _InLanguage(fullname, spec.loader.path)
        spec.loader.language = self.language
        return spec


def write(found: Iterable[Entry], path: Path) -> None:
    """The catalogue as a PO template: every entry once, with the places it stands at."""
    import polib

    file = polib.POFile()
    file.metadata = {"Content-Type": "text/plain; charset=utf-8", "Content-Transfer-Encoding": "8bit"}
    places: dict[tuple[str, str], list[tuple[str, str]]] = {}
    for one in found:
        places.setdefault((one.text, one.context), []).append((one.place, str(one.line)))
    for (text, context), where in places.items():
        file.append(polib.POEntry(msgid=text, msgctxt=context or None, occurrences=where))
    file.save(str(path))


def speak(path: Path) -> None:
    """From now on the program speaks the language of a PO file; before any of its parts is read in."""
    language = Language.read(path)
    sys.meta_path.insert(0, _Finder(language))
    from gentle_hem.core.tongue import speak_names

    speak_names(language.names)
