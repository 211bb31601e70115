"""Calls by the API's own document, a few of the thousands that `make soak` makes."""

import random

from tests.app import AppCase
from tests.soak.calls import call_all
from tests.soak.filled import fill


class Calls(AppCase):
    def test_no_failure_and_nothing_that_the_document_does_not_name(self) -> None:
        found = call_all(self.client, 600, random.Random(5), fill(self.app))
        self.assertEqual(found.failures, [])
        self.assertEqual(dict(found.undocumented), {})
        self.assertGreater(found.statuses[200], 50)
        self.assertGreater(found.statuses[422], 50)
        self.assertGreater(len(found.done), 40)
