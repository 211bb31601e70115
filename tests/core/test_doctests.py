"""Every example in a docstring of the core is true."""

import doctest
import importlib
import pkgutil
import unittest

import fulmen.core


def load_tests(loader: unittest.TestLoader, tests: unittest.TestSuite, pattern: str | None) -> unittest.TestSuite:
    for found in pkgutil.walk_packages(fulmen.core.__path__, "fulmen.core."):
        if "rule_sets" not in found.name:
            tests.addTests(doctest.DocTestSuite(importlib.import_module(found.name)))
    return tests
