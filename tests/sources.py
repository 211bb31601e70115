"""Our own source as trees: read and walked once a process, however many tests look at it."""

import ast
from functools import cache
from pathlib import Path


@cache
def tree_of(path: Path) -> ast.Module:
    """A module's tree; whoever looks at it changes nothing in it."""
    return ast.parse(path.read_text(encoding="utf-8"))


@cache
def nodes_of(path: Path) -> tuple[ast.AST, ...]:
    """Every node of a module's tree."""
    return tuple(ast.walk(tree_of(path)))
